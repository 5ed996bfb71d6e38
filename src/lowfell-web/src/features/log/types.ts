import type { Schema } from "../../api/client";

export type Entry = Schema["LogEntry"];
export type Photo = Schema["PhotoDto"];
export type Learned = Schema["LearnedReading"];
export type Hits = Schema["Hits"];
