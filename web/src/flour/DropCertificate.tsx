import { useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { startFrom } from "./draft";
import { readFile } from "./readFile";

/** Takes a certificate file by dropping or choosing, or leads to typing one in. */
export function DropCertificate({ onRead }: { onRead?: () => void }) {
  const [says, setSays] = useState<string>();
  const [over, setOver] = useState(false);
  const navigate = useNavigate();
  const { search } = useLocation();
  const take = async (file: File | undefined) => {
    if (!file) return;
    setSays(`Reading ${file.name} …`);
    const read = await readFile(file);
    if ("says" in read) return setSays(`${file.name}: ${read.says}`);
    setSays(undefined);
    startFrom(read.file, file.name);
    onRead?.();
    void navigate({ pathname: "/flour/intake", search });
  };
  return (
    <div
      className={`mt-2 border-2 border-dashed p-4 ${over ? "border-crust bg-faint" : "border-hair"}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer.files[0]);
      }}
    >
      <p>
        Drop a certificate of analysis here (CSV),{" "}
        <label className="link focus-within:outline-2">
          choose the file
          <input
            type="file"
            accept=".csv,.txt,text/csv,text/plain"
            className="sr-only"
            onChange={(event) => {
              void take(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </label>
        , or{" "}
        <Link className="link" to={{ pathname: "/flour/intake", search }}>
          type it in
        </Link>
        .
      </p>
      {says && (
        <p className="mt-2 text-stop" role="alert">
          {says}
        </p>
      )}
    </div>
  );
}
