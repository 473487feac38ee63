# make demo   the product with demo data, at http://127.0.0.1:5240
# make test   every test
# make bench  measurements
# make fuzz   mutated clips through the native layer, ten minutes
# Each does all set-up that is missing.
SHELL := /bin/bash
# A compiler that does not profile itself is done a tenth sooner.
export DOTNET_TieredPGO := 0
PACKAGES := ffmpeg libavformat-dev libavcodec-dev libavfilter-dev libavutil-dev libswscale-dev gcc libc6-dev pkg-config util-linux
TEST_PACKAGES := chromium-headless-shell pocl-opencl-icd mesa-vulkan-drivers clang libclang-rt-dev
PORT ?= 5240
WEB_SOURCES := $(shell find web/src web/static -type f 2>/dev/null) web/package.json web/vite.config.ts web/openapi.json

.PHONY: demo test bench fuzz setup setup-test restored build screenshots clean

# Only what the demo serves is built, not the tests and measurements, and without the analyzers, which 'make test' runs.
demo: setup web/build/index.html
	dotnet build src/HardyBench.Cli -c Release -v q --nologo -p:RunAnalyzers=false
	./hardybench serve --demo --port $(PORT)

test: setup setup-test
	@$(MAKE) -j3 --no-print-directory restored web/build/index.html tests/e2e/node_modules/.installed tests/reference/node_modules/.installed
	dotnet build HardyBench.slnx -c Release -v q --nologo --no-restore
	./tests/run

bench: build
	dotnet run -c Release --project benchmarks/HardyBench.Benchmarks -- $(WHAT)

fuzz: setup-test
	tests/fuzz/run 600 $$RANDOM

setup: .make/packages

setup-test: .make/packages .make/test-packages

restored:
	dotnet restore HardyBench.slnx -v q -p:Configuration=Release

build: setup web/build/index.html
	dotnet build HardyBench.slnx -c Release -v q --nologo

.make/packages .make/test-packages:
	@mkdir -p .make
	@./tools/install $(if $(findstring test,$@),$(TEST_PACKAGES),$(PACKAGES))
	@touch $@

web/node_modules/.installed: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	@touch $@

tests/e2e/node_modules/.installed: tests/e2e/package-lock.json
	cd tests/e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund
	@touch $@

tests/reference/node_modules/.installed: tests/reference/package-lock.json
	cd tests/reference && npm ci --no-audit --no-fund
	@touch $@

web/build/index.html: $(WEB_SOURCES) web/node_modules/.installed
	cd web && npm run build
	@touch $@

# Pictures of docs/screenshots, from a running 'make demo'.
screenshots: setup-test tests/e2e/node_modules/.installed
	cd tests/e2e && node screenshots.mjs http://127.0.0.1:$(PORT)

clean:
	rm -rf .make web/build web/node_modules web/.svelte-kit tests/e2e/node_modules tests/e2e/results tests/reference/node_modules
	find src tests benchmarks -name bin -o -name obj | xargs rm -rf
