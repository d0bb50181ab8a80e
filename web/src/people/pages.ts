/** The pages of people and what they did, loaded together when one of them is first asked for. */
export { AuditPage } from "./AuditPage";
export { KeysPage } from "./KeysPage";
export { PeoplePage } from "./PeoplePage";
export { StationsPage } from "./StationsPage";
