import { useCallback, useEffect, useState } from "react";
import { useNavigate } from "react-router";
import type { FileState } from "../form/FileSays";
import { startFrom } from "./draft";
import { readFile } from "./readFile";
import { useScenario } from "../scenario/ScenarioProvider";

/** Takes a certificate file to the intake, or says why it cannot. */
export function useTakeCertificate() {
  const [state, setState] = useState<FileState>();
  const navigate = useNavigate();
  const { search } = useScenario();
  const take = useCallback(
    async (file: File | undefined) => {
      if (!file) return;
      setState({ reading: file.name });
      const read = await readFile(file);
      if ("message" in read) return setState({ refused: `${file.name}: ${read.message}` });
      setState(undefined);
      startFrom(read.file, file.name);
      void navigate({ pathname: "/flour/receive", search });
    },
    [navigate, search],
  );
  return { state, take };
}

/** A certificate may be dropped anywhere on the page. */
export function useDropAnywhere() {
  const { state, take } = useTakeCertificate();
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
  return { state, over };
}
