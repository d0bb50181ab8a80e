import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { record } from "../api/outbox";
import { AddressCode } from "../figures/AddressCode";
import { FieldText } from "../form/FieldText";
import { Form } from "../form/Form";
import { ResultsTabs } from "../results/ResultsTabs";
import { useKept } from "../storage/useKept";
import { useFormat } from "../units/format";
import { AddPhotograph } from "./AddPhotograph";
import { MarkLine } from "./MarkLine";
import { PaperSheet } from "./PaperSheet";
import { Photographs } from "./Photographs";
import { marksOf, type Sheet } from "./sheet";

/** A judge's sheet of one coded sample; which batch it is of is not said. */
export function JudgePage() {
  const { code } = useParams();
  return (
    <>
      <ResultsTabs />
      {code ? <CodedSheet key={code} code={code} /> : <EnterCode />}
    </>
  );
}

function EnterCode() {
  const navigate = useNavigate();
  const [code, setCode] = useState("");
  return (
    <>
      <h1>Judge a sample</h1>
      <Form
        className="mt-3 flex flex-wrap items-end gap-4"
        onSubmit={() => void navigate(`/judge/${code.trim()}`)}
      >
        <FieldText label="Code on the sample" className="w-40" value={code} onChange={setCode} />
        <button type="submit" className="act act-main" disabled={!code.trim()}>
          Open its sheet
        </button>
      </Form>
      <p className="mt-3 max-w-3xl text-iron">
        Samples are set out under codes from a batch, under Results, Scores. Each judges alone, in
        even white light: wheat 18 to 24 h after the oven, rye 36 to 48 h.
      </p>
    </>
  );
}

interface Kept {
  sheet: Sheet;
  note: string;
  round: 1 | 2;
}
const begin = (kept?: Partial<Kept>): Kept => ({ sheet: {}, note: "", round: 1, ...kept });

function CodedSheet({ code }: { code: string }) {
  const format = useFormat();
  const queries = useQueryClient();
  const [{ sheet, note, round }, keep, forget] = useKept(`ironpeel.score.${code}`, begin);
  const { data: blank, error } = useQuery({
    queryKey: ["sample", code],
    queryFn: () => answer(api.GET("/api/v1/samples/{code}", { params: { path: { code } } })),
  });
  const save = useMutation({
    networkMode: "always",
    mutationFn: () =>
      record<Schemas["Score"]>({
        path: `/api/v1/scores/${crypto.randomUUID()}`,
        label: `score of sample ${code}`,
        body: { code, marks: marksOf(sheet), note, round },
      }),
    onSuccess: async () => {
      forget();
      await queries.invalidateQueries({ queryKey: ["batches"] });
      await queries.invalidateQueries({ queryKey: ["trial"] });
    },
  });
  if (error)
    return (
      <div role="alert" className="py-6">
        <h1>No sample {code}</h1>
        <p className="mt-2">
          {error.message}.{" "}
          <Link className="link" to="/judge">
            Type another code
          </Link>
        </p>
      </div>
    );
  if (!blank)
    return <h1 className="py-10 text-base font-normal text-iron">Fetching the sheet …</h1>;
  if (save.data)
    return (
      <div role="status" className="py-6">
        <h1>Sample {code} is judged</h1>
        <p className="mt-2">
          {format.count(save.data.marks.length, "mark")} recorded; the first marks stay.
        </p>
        <p className="mt-4 flex gap-4">
          <Link className="act act-main" to="/judge">
            The next sample
          </Link>
        </p>
      </div>
    );
  const left = blank.lines.length - marksOf(sheet).length;
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1>
          Sample {blank.code}, {blank.product}
        </h1>
        <p className="text-iron">
          1 to 5 in halves, 5 is the product's agreed standard, not “most”
        </p>
        <button
          type="button"
          className="link screen-only ml-auto text-sm"
          onClick={() => window.print()}
        >
          Print the sheet
        </button>
      </div>
      <Form
        className="screen-only mt-3"
        label={`Sheet of sample ${code}`}
        error={save.error}
        onSubmit={() => save.mutate()}
      >
        <ol>
          {blank.lines.map((line, at) => (
            <MarkLine
              key={line.of}
              number={at + 1}
              line={line}
              marked={sheet[line.of] ?? {}}
              place={marksOf(sheet).findIndex((one) => one.of === line.of)}
              onSet={(marked) => keep((now) => ({ sheet: { ...now.sheet, [line.of]: marked } }))}
            />
          ))}
        </ol>
        <div className="mt-3 flex flex-wrap items-end gap-4">
          <FieldText
            label="Note"
            className="min-w-64 flex-1"
            field="note"
            value={note}
            onChange={(note) => keep({ note })}
          />
          <label className="pb-2">
            <input
              type="checkbox"
              checked={round === 2}
              onChange={(event) => keep({ round: event.target.checked ? 2 : 1 })}
            />{" "}
            a second look, because the judges disagreed
          </label>
          <button
            type="submit"
            className="act act-main"
            disabled={save.isPending || marksOf(sheet).length === 0}
          >
            Record these marks
          </button>
        </div>
        {left > 0 && (
          <p className="mt-1 text-sm text-iron">
            {format.count(left, "characteristic")} not marked.
          </p>
        )}
      </Form>
      <section aria-label="Photographs" className="screen-only mt-6 border-t-2 border-ink pt-2">
        <h2>Photographs</h2>
        <Photographs className="mt-2" photographs={blank.photographs} of={() => code} />
        <AddPhotograph code={code} />
      </section>
      <PaperSheet
        blank={blank}
        code={<AddressCode address={`/judge/${code}`} of={`sample ${code}`} />}
      />
    </>
  );
}
