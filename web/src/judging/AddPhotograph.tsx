import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../api/client";
import { record } from "../api/outbox";
import { FileChoice } from "../form/FileChoice";
import { FileSays, type FileState } from "../form/FileSays";
import { Refusal } from "../form/Refusal";
import { optionsOf, Select } from "../form/Select";
import { KINDS, smaller, VIEWS } from "./photograph";

/** Puts a photograph with a sample, by the camera or from a file. */
export function AddPhotograph({ code }: { code: string }) {
  const queries = useQueryClient();
  const [shows, setShows] = useState<Schemas["PhotographView"]>("cut_face");
  const [state, setState] = useState<FileState>();
  const save = useMutation({
    networkMode: "always",
    mutationFn: (content: string) =>
      record<Schemas["SamplePhotograph"][]>({
        path: `/api/v1/samples/${code}/photographs/${crypto.randomUUID()}`,
        label: `photograph of sample ${code}`,
        body: { shows, content },
      }),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sample", code] }),
  });
  const take = async (file: File) => {
    save.reset();
    setState({ reading: file.name });
    const made = await smaller(file);
    if ("refused" in made) return setState(made);
    setState(undefined);
    save.mutate(made.content);
  };
  const accept = KINDS.join(",");
  return (
    <div className="screen-only mt-2">
      <div className="flex flex-wrap items-end gap-4">
        <Select
          label="The photograph shows the"
          className="w-48"
          value={shows}
          options={optionsOf(VIEWS)}
          onSet={setShows}
        />
        <FileChoice look="act" accept={accept} camera onFile={(file) => void take(file)}>
          Take it with the camera
        </FileChoice>
        <FileChoice look="act" accept={accept} onFile={(file) => void take(file)}>
          Choose a file
        </FileChoice>
        {save.isPending && <p role="status">Sending …</p>}
      </div>
      <FileSays state={state} />
      <Refusal error={save.error} />
    </div>
  );
}
