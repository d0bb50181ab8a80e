import { QRCodeSVG } from "qrcode.react";

/** An address as a code that a tablet's camera opens. */
export function AddressCode({ address, of }: { address: string; of: string }) {
  return (
    <QRCodeSVG
      value={new URL(address, window.location.href).href}
      size={76}
      marginSize={2}
      fgColor="#000"
      bgColor="#fff"
      title={`Code of the address of ${of}`}
      role="img"
    />
  );
}
