import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answer, api, type Schemas } from "../api/client";
import { DISPOSITION } from "../shell/disposition";
import { VERDICT } from "../shell/verdict";
import { LoadMore } from "../shell/LoadMore";
import { useFormat } from "../units/format";

/** Lots, newest first, a page at a time. */
export function LotList() {
  const format = useFormat();
  const list = useInfiniteQuery({
    queryKey: ["lots"],
    initialPageParam: {} as Partial<Schemas["Cursor"]>,
    queryFn: ({ pageParam: query }) => answer(api.GET("/api/v1/lots", { params: { query } })),
    getNextPageParam: (page) => page.next,
  });
  const lots = list.data?.pages.flatMap((page) => page.lots);
  return (
    <section aria-labelledby="lots" className="mt-8">
      <h2 id="lots">Lots, newest first</h2>
      <div className="overflow-x-auto">
        <table className="mt-1 w-full">
          <thead>
            <tr className="border-b border-ink">
              <th scope="col" className="py-1">
                lot
              </th>
              <th scope="col">flour</th>
              <th scope="col">milled</th>
              <th scope="col" className="text-right">
                received
              </th>
              <th scope="col" className="text-right">
                stock
              </th>
              <th scope="col" className="pl-6">
                specification
              </th>
              <th scope="col">release status</th>
            </tr>
          </thead>
          <tbody>
            {lots?.map((lot) => (
              <tr key={lot.id} className="border-b border-hair hover:bg-faint">
                <td className="py-1">
                  <Link className="link font-semibold" to={`/flour?lot=${lot.id}`}>
                    {lot.code}
                  </Link>
                </td>
                <td>{lot.flour}</td>
                <td>{lot.milled_on && format.date(lot.milled_on)}</td>
                <td className="text-right">{lot.tonnes != null && format.tonnes(lot.tonnes)}</td>
                <td className="text-right">
                  {lot.status.stock &&
                    `${format.tonnes(lot.status.stock.tonnes_left)} in ${lot.status.stock.place}`}
                </td>
                <td className={`pl-6 ${lot.verdict ? VERDICT[lot.verdict].colour : ""}`}>
                  {lot.verdict && `${VERDICT[lot.verdict].mark} ${VERDICT[lot.verdict].word}`}
                </td>
                <td className={lot.status.decision ? "" : "text-iron"}>
                  {lot.status.decision
                    ? (DISPOSITION[lot.status.decision.decision]?.word ?? "")
                    : "pending"}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {lots?.length === 0 && (
        <p className="mt-2">No lots yet. Drop a mill's certificate to import one.</p>
      )}
      <LoadMore of={list}>Older lots</LoadMore>
    </section>
  );
}
