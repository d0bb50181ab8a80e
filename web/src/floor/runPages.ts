export { BoardPage } from "./BoardPage";
export { RunPage } from "./RunPage";
