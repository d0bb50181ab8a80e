-- Folds are moments: so many sets, each with a rest after it.
ALTER TABLE method_stage ADD COLUMN fold_sets smallint CHECK (fold_sets BETWEEN 1 AND 12);
-- What the house's own methods called them before they had a number.
UPDATE method_stage SET fold_sets = 3 WHERE kind = 'fold' AND label = 'Three sets of folds';
UPDATE method_stage SET fold_sets = 4 WHERE kind = 'fold' AND label = 'Four sets of folds';
