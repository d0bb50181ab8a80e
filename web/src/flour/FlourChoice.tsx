import { useNavigate, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { useScenario } from "../scenario/ScenarioProvider";
import { Select } from "../form/Select";

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
      <Select
        label="Flour"
        place="hidden"
        value={flour?.id ?? ""}
        none="…"
        options={(flours ?? []).map((one) => [one.id, one.name])}
        onSet={(id) => void navigate({ pathname: `${path}/${id}`, search })}
      />
      {unknown && (
        <span className="mt-2 block text-base text-stop" role="alert">
          No flour is on record under this address; choose one above.
        </span>
      )}
    </h1>
  );
}
