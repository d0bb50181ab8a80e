import { NavLink, useLocation } from "react-router";

const TABS = [
  { name: "This lot", path: "/flour" },
  { name: "What changed", path: "/flour/change" },
  { name: "Drift", path: "/flour/drift" },
  { name: "Curves", path: "/flour/curves" },
  { name: "Specification", path: "/flour/specification" },
  { name: "Blend", path: "/flour/blend" },
  { name: "Mend", path: "/flour/mend" },
  { name: "Many lots", path: "/flour/import" },
] as const;

/** The parts of the flour link. */
export function FlourTabs() {
  const { search } = useLocation();
  return (
    <nav aria-label="Flour" className="screen-only mb-4 overflow-x-auto border-b border-hair">
      <ul className="flex gap-x-6 whitespace-nowrap">
        {TABS.map(({ name, path }) => (
          <li key={path}>
            <NavLink
              end
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
