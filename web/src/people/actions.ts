/** What was done, in the words of the job, by how the API's document names it. */
const ACTIONS: Record<string, string> = {
  "POST /api/v1/imports/lots": "lots imported",
  "PUT /api/v1/batches/{batch_id}": "batch planned",
  "PUT /api/v1/blends/{flour_id}": "blend",
  "PUT /api/v1/curves/{curve_id}/marks/{mark_id}": "mark of a curve",
  "PUT /api/v1/dough-temperatures/{id}": "dough temperature",
  "PUT /api/v1/flours/{flour_id}/revisions/{revision_id}": "flour",
  "PUT /api/v1/flours/{flour_id}/specifications/{revision_id}": "specification",
  "PUT /api/v1/formulas/{formula_id}/revisions/{revision_id}": "formula",
  "PUT /api/v1/lines/{line_id}/revisions/{revision_id}": "line",
  "PUT /api/v1/lots/{lot_id}/curves/{curve_id}": "curve imported",
  "PUT /api/v1/lots/{lot_id}/dispositions/{disposition_id}": "release, hold or rejection",
  "PUT /api/v1/lots/{lot_id}/instruments/{kind}/{curve_id}": "curve of an instrument",
  "PUT /api/v1/lots/{lot_id}/revisions/{revision_id}": "certificate of a lot",
  "PUT /api/v1/lots/{lot_id}/stock/{stock_id}": "stock",
  "PUT /api/v1/methods/{method_id}/revisions/{revision_id}": "method",
  "PUT /api/v1/plant/parameters/revisions/{revision_id}": "coefficients and ingredients",
  "PUT /api/v1/plant/settings": "settings of the plant",
  "PUT /api/v1/products/{slug}": "product",
  "PUT /api/v1/trials/{trial_id}": "trial",
};

export const actionOf = (action: string) =>
  ACTIONS[action] ?? (action.startsWith("refused ") ? "refused by role" : action);
