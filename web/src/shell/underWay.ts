import type { createBrowserRouter } from "react-router";

let underWay = false;

/** Follows whether a page that was asked for is still being fetched, as the router itself has it. */
export const followWay = (router: ReturnType<typeof createBrowserRouter>) =>
  router.subscribe(({ navigation }) => {
    underWay = navigation.state !== "idle";
  });

/** Whether somebody is on the way to another page by now. */
export const isUnderWay = () => underWay;
