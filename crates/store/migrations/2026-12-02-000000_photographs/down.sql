DROP TABLE sample_photograph;
DROP TABLE photograph_content;
DROP TABLE photograph;
