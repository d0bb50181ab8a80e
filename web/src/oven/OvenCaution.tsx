/** What hurts people at an oven. */
export const OvenCaution = () => (
  <p className="mt-6 max-w-3xl border-l-4 border-crust pl-3 text-sm">
    <b>Caution:</b> steam, hot vessels and trays burn; open from the side and wait for the steam.
    Water on the floor is slippery, and cold water on a hot stone or glass cracks it. Lock the oven
    out before hands or tools go in. Follow the oven's maker and the local rules.
  </p>
);
