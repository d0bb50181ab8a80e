.PHONY: demo test check bench

demo: ; @scripts/demo
test: ; @scripts/test
check: ; @scripts/setup tests && scripts/check
bench: ; @scripts/bench
