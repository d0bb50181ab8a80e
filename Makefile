.PHONY: demo dev test check generate bench soak

demo: ; @scripts/demo
dev: ; @scripts/dev
test: ; @scripts/test
check: ; @scripts/setup tests && scripts/check
generate: ; @scripts/setup && scripts/generate
bench: ; @scripts/bench
soak: ; @scripts/soak
