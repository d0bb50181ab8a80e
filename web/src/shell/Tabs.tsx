import { NavLink } from "react-router";
import { useScenario } from "../scenario/ScenarioProvider";

/** The pages of one link of the chain. */
export function Tabs({ of, tabs }: { of: string; tabs: readonly (readonly [string, string])[] }) {
  const { search } = useScenario();
  return (
    <nav aria-label={of} className="screen-only mb-4 overflow-x-auto border-b border-hair">
      <ul className="flex gap-x-6 whitespace-nowrap">
        {tabs.map(([name, path]) => (
          <li key={path}>
            <NavLink
              // A page under a tab is that tab's, but where it has one of its own.
              end={tabs.some(([, other]) => other.startsWith(`${path}/`))}
              to={{ pathname: path, search }}
              className={({ isActive }) =>
                `block border-b-2 pt-1 pb-1.5 ${isActive ? "border-crust font-semibold" : "border-transparent text-iron hover:text-ink"}`
              }
            >
              {name}
            </NavLink>
          </li>
        ))}
      </ul>
    </nav>
  );
}
