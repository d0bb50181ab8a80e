import { useEffect, useRef } from "react";
import { useLocation, useNavigate, useNavigation, type To } from "react-router";

/**
 * Leads on from what was recorded; whoever went elsewhere meanwhile is not called back, nor whoever
 * is on the way while the page there is still being fetched.
 */
export function useGoOn() {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const { state } = useNavigation();
  const way = useRef(state);
  useEffect(() => {
    way.current = state;
  }, [state]);
  return (to: To) => {
    if (window.location.pathname === pathname && way.current === "idle") void navigate(to);
  };
}
