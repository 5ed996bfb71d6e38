import { defineConfig } from "vitest/config";

// A machine that is busy with other things takes its time; what never ends is found all the same. Files share what they import: a test leaves
// nothing behind that another would stumble over.
export default defineConfig({ test: { testTimeout: 60_000, isolate: false } });
