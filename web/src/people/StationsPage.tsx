import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api, done, type Schemas } from "../api/client";
import { FieldText } from "../form/FieldText";
import { Form } from "../form/Form";
import { NumberField } from "../form/NumberField";
import { Refusal } from "../form/Refusal";
import { PlantTabs } from "../plant/PlantTabs";
import { signedInNow } from "../session/session";
import { DataTable, type Column } from "../table/DataTable";
import { useFormat, type Format } from "../units/format";

const STATIONS = ["stations"];

const columns = (format: Format): Column<Schemas["Station"]>[] => [
  { head: "station", of: (one) => one.name },
  { head: "made by", of: (one) => one.made_by },
  { head: "made", of: (one) => one.made_at, show: (one) => format.date(one.made_at) },
  { head: "last used", of: (one) => one.seen_at, show: (one) => format.moment(one.seen_at) },
  {
    head: "nobody there after",
    of: (one) => one.idle_minutes,
    show: (one) => `${one.idle_minutes} min`,
  },
];

/** The tablets of the floor. */
export function StationsPage() {
  const format = useFormat();
  const queries = useQueryClient();
  const { data: stations, error } = useQuery({
    queryKey: STATIONS,
    queryFn: () => answer(api.GET("/api/v1/stations")),
  });
  const [name, setName] = useState("");
  const [idle, setIdle] = useState(15);
  const make = useMutation({
    mutationFn: () =>
      answer(
        api.PUT("/api/v1/stations/{station_id}", {
          params: { path: { station_id: crypto.randomUUID() } },
          body: { name, idle_minutes: idle },
        }),
      ),
    onSuccess: (session) => signedInNow(queries, session),
  });
  const end = useMutation({
    mutationFn: (station_id: string) =>
      done(api.DELETE("/api/v1/stations/{station_id}", { params: { path: { station_id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: STATIONS }),
  });
  return (
    <>
      <PlantTabs />
      <h1>Stations</h1>
      <p className="max-w-2xl text-sm text-iron">
        A station is a tablet of the floor, signed in once. Whoever is at it chooses their name and
        shows it by a PIN; what they record is recorded as theirs, and it may do what the floor may.
      </p>
      <Refusal error={error ?? end.error} />
      <div className="mt-4">
        <DataTable
          caption="Stations"
          rows={stations}
          columns={columns(format)}
          rowKey={(one) => one.id}
          empty="No stations yet."
          act={(one) => (
            <button type="button" className="link text-sm" onClick={() => end.mutate(one.id)}>
              Sign out
            </button>
          )}
        />
      </div>
      <Form
        label="New station"
        className="mt-8 max-w-2xl border-t border-hair pt-4"
        error={make.error}
        onSubmit={() => make.mutate()}
      >
        <h2>Make this browser a station</h2>
        <p className="text-sm text-iron">
          Do this at the tablet itself: you are signed out here, and it asks who is there.
        </p>
        <div className="mt-3 flex flex-wrap items-end gap-4">
          <FieldText
            label="Where it stands"
            className="w-64"
            placeholder="spiral mixer"
            value={name}
            onChange={setName}
            field="name"
          />
          <NumberField
            label="Nobody there after, min"
            className="w-44"
            kind="number"
            value={idle}
            onSet={(minutes) => setIdle(minutes ?? 15)}
            field="idle_minutes"
          />
          <button type="submit" className="act act-main" disabled={make.isPending}>
            Make it a station
          </button>
        </div>
      </Form>
    </>
  );
}
