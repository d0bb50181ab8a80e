import { FileSays } from "../form/FileSays";
import { useDropAnywhere } from "./takeCertificate";

/** Shows that a certificate can be let go here, and what came of it. */
export function DropOverlay() {
  const { state, over } = useDropAnywhere();
  return (
    <>
      {over && (
        <p className="pointer-events-none fixed inset-0 z-40 grid place-items-center border-8 border-dashed border-crust bg-paper/85 text-3xl font-semibold">
          Drop the certificate here
        </p>
      )}
      <FileSays state={state} className="screen-only border-b border-stop bg-faint px-6 py-2" />
    </>
  );
}
