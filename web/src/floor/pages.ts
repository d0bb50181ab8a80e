/** The pages of this link, loaded together when one of them is first asked for. */
export { BatchPage } from "./BatchPage";
export { FloorPage } from "./FloorPage";
