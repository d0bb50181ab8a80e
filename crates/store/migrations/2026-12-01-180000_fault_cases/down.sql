DROP TABLE fault_case;
