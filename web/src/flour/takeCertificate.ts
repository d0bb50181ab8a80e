import { useCallback, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { startFrom } from "./draft";
import { readFile } from "./readFile";
import { useHand } from "../hand/HandProvider";

/** Takes a certificate file to the intake, or says why it cannot. */
export function useTakeCertificate() {
  const [says, setSays] = useState<string>();
  const navigate = useNavigate();
  const { search } = useHand();
  const take = useCallback(
    async (file: File | undefined) => {
      if (!file) return;
      setSays(`Reading ${file.name} …`);
      const read = await readFile(file);
      if ("says" in read) return setSays(`${file.name}: ${read.says}.`);
      setSays(undefined);
      startFrom(read.file, file.name);
      void navigate({ pathname: "/flour/intake", search });
    },
    [navigate, search],
  );
  return { says, take };
}

/** A certificate may be dropped anywhere on the page. */
export function useDropAnywhere() {
  const { says, take } = useTakeCertificate();
  const [over, setOver] = useState(false);
  useEffect(() => {
    const on = (type: string, does: (event: DragEvent) => void) => {
      const listener = (event: Event) => does(event as DragEvent);
      window.addEventListener(type, listener);
      return () => window.removeEventListener(type, listener);
    };
    const holdsFiles = (event: DragEvent) => event.dataTransfer?.types.includes("Files") ?? false;
    const off = [
      on("dragover", (event) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        setOver(true);
      }),
      on("dragleave", (event) => event.relatedTarget === null && setOver(false)),
      on("drop", (event) => {
        if (!holdsFiles(event)) return;
        event.preventDefault();
        setOver(false);
        void take(event.dataTransfer?.files[0]);
      }),
    ];
    return () => off.forEach((remove) => remove());
  }, [take]);
  return { says, over };
}
