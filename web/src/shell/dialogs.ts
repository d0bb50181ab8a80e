/** What is laid over the page, loaded when first opened. */
export { AccountDialog } from "./AccountDialog";
export { Finder } from "./Finder";
export { PreferencesDialog } from "./PreferencesDialog";
export { Shortcuts } from "./Shortcuts";
