import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { answer, api } from "../api/client";
import { PagedList } from "../table/PagedList";
import { useFormat } from "../units/format";
import { ResultsTabs } from "./ResultsTabs";
import { useAsked } from "./useAsked";
import { lotsNamed } from "../scenario/found";

/** From a lot all batches it went into; each batch leads to all lots behind it. */
export function RecallPage() {
  const format = useFormat();
  const [search, set] = useAsked();
  const [typed, setTyped] = useState("");
  const lot = search.get("recall");
  const code = search.get("code");
  const { data: found } = useQuery({ ...lotsNamed(typed), enabled: typed.trim().length > 1 });
  const { data: uses } = useQuery({
    queryKey: ["batches", "drawn", lot],
    enabled: lot != null,
    queryFn: () =>
      answer(api.GET("/api/v1/lots/{lot_id}/batches", { params: { path: { lot_id: lot ?? "" } } })),
  });
  const drawn = uses?.drawn;
  return (
    <>
      <ResultsTabs />
      <h1 className="sr-only">Recall</h1>
      <label className="block max-w-md text-sm text-iron">
        Lot
        <input
          type="search"
          className="field text-ink"
          placeholder="the beginning of its code"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <ul className="max-w-md">
        {typed.trim().length > 1 &&
          found?.map((one) => (
            <li key={one.id} className="border-t border-hair">
              <button
                type="button"
                className="link py-1"
                onClick={() => {
                  set({ recall: one.id, code: one.code });
                  setTyped("");
                }}
              >
                {one.code}, {one.flour}
              </button>
            </li>
          ))}
      </ul>
      {!lot && (
        <p className="mt-4 text-iron">
          Choose a lot: every batch it went into stands here in one step, whichever flour of the
          formula it was. From a batch, all lots behind it stand on its page.
        </p>
      )}
      {lot && code && (
        <>
          <p className="mt-4">
            <b>{code}</b>{" "}
            <a
              className="link ml-4 text-sm"
              download
              href={`/api/v1/batch-export?format=csv&lot=${encodeURIComponent(code)}`}
            >
              CSV
            </a>
            <a
              className="link ml-4 text-sm"
              download
              href={`/api/v1/batch-export?format=json&lot=${encodeURIComponent(code)}`}
            >
              JSON with every event
            </a>
          </p>
          {drawn && (
            <p className="mt-1 text-iron">
              {format.mass(drawn.kg)} taken by batches since its stock was stated on{" "}
              {format.date(drawn.since)}: {format.tonnes(drawn.tonnes_left)} left.
            </p>
          )}
          <PagedList
            className="mt-2"
            heading={`Batches made with ${code}`}
            queryKey={["batches", "recall", lot]}
            ask={(cursor) =>
              answer(
                api.GET("/api/v1/lots/{lot_id}/batches", {
                  params: { path: { lot_id: lot }, query: cursor },
                }),
              )
            }
            rows={(page) => page.batches}
            columns={[
              {
                head: "product",
                of: (one) => one.product,
                show: (one) => (
                  <Link className="link font-semibold" to={`/batches/${one.batch_id}`}>
                    {one.product}
                  </Link>
                ),
              },
              {
                head: "planned for",
                of: (one) => one.planned_for,
                show: (one) => format.moment(one.planned_for),
              },
              { head: "line", of: (one) => one.line },
              { head: "state", of: (one) => one.state },
              {
                head: "of the lot",
                of: (one) => one.kg,
                show: (one) => (one.kg == null ? "" : format.mass(one.kg)),
                figures: true,
              },
              {
                head: "good pieces",
                of: (one) => one.pieces_good,
                show: (one) => (one.pieces_good == null ? "" : format.number(one.pieces_good, 0)),
                figures: true,
              },
            ]}
            rowKey={(one) => one.batch_id}
            empty="It went into no batch."
            more="Earlier batches"
          />
        </>
      )}
    </>
  );
}
