import { useLocation, useNavigate, type To } from "react-router";
import { wayTo } from "../scenario/underWay";

/**
 * Leads on from what was recorded; whoever went elsewhere meanwhile is not called back, nor whoever
 * is on the way while the page there is still being fetched.
 */
export function useGoOn() {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  return (to: To) => {
    if (window.location.pathname === pathname && !wayTo()) void navigate(to);
  };
}
