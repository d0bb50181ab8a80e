-- Every reference can be followed back: which batches used this, what was measured there.
CREATE INDEX batch_formula_revision_id ON batch (formula_revision_id);
CREATE INDEX batch_line_revision_id ON batch (line_revision_id);
CREATE INDEX batch_method_revision_id ON batch (method_revision_id);
CREATE INDEX batch_numbers_revision_id ON batch (numbers_revision_id);
CREATE INDEX batch_specification_revision_id ON batch (specification_revision_id);
CREATE INDEX batch_flour_specification_revision_id ON batch_flour (specification_revision_id);
CREATE INDEX blend_part_flour_id ON blend_part (flour_id);
CREATE INDEX dough_temperature_line_id ON dough_temperature (line_id);
CREATE INDEX flour_mill_id ON flour (mill_id);
CREATE INDEX formula_flour_flour_id ON formula_flour (flour_id);
CREATE INDEX formula_part_flour_id ON formula_part (flour_id);
CREATE INDEX lot_decision_lot_revision_id ON lot_decision (lot_revision_id);
CREATE INDEX lot_decision_specification_revision_id ON lot_decision (specification_revision_id);
CREATE INDEX product_flour_id ON product (flour_id);
CREATE INDEX product_formula_id ON product (formula_id);
CREATE INDEX product_line_id ON product (line_id);
CREATE INDEX product_method_id ON product (method_id);
