DROP TABLE bake_trace_mark;
