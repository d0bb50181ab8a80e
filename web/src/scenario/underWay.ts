import type { createBrowserRouter, Location } from "react-router";

let way: Location | undefined;

/** Follows the page that was asked for and is still being fetched, as the router itself has it. */
export const followWay = (router: ReturnType<typeof createBrowserRouter>) =>
  router.subscribe(({ navigation }) => {
    way = navigation.location;
  });

/** Where somebody is on the way to by now, if anywhere. */
export const wayTo = () => way;
