import { useLocation, useNavigate, type To } from "react-router";

/** Leads on from what was recorded; whoever went elsewhere meanwhile is not called back. */
export function useGoOn() {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  return (to: To) => {
    if (window.location.pathname === pathname) void navigate(to);
  };
}
