import { defineConfig } from "vitest/config";

// A machine that is busy with other things takes its time; what never ends is found all the same.
export default defineConfig({ test: { testTimeout: 60_000 } });
