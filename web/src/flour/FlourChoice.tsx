import { useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";

interface Props {
  /** The page's address without the flour. */
  path: string;
  flour: Schemas["FlourView"] | undefined;
  flours: Schemas["FlourView"][] | undefined;
}

/** Chooses the flour a page is about; the choice stands in the address. */
export function FlourChoice({ path, flour, flours }: Props) {
  const navigate = useNavigate();
  const { search } = useScenario();
  const { flourId } = useParams();
  const unknown = flourId && flours && !flour;
  return (
    <h1>
      <label>
        <span className="sr-only">Flour</span>
        <select
          className="border-b border-iron bg-paper font-semibold"
          value={flour?.id ?? ""}
          onChange={(event) => void navigate({ pathname: `${path}/${event.target.value}`, search })}
        >
          {!flour && <option value="">…</option>}
          {flours?.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      {unknown && (
        <span className="mt-2 block text-base text-stop" role="alert">
          No flour is on record under this address; choose one above.
        </span>
      )}
    </h1>
  );
}
