DROP TABLE drift_seen;
DROP TABLE drift;
DROP TABLE batch_evidence;
