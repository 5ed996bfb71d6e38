import type { Schema } from "../../api/client";

export type { BenchEvent, Kind, Reading, Told } from "../../shared/bench/types";
export type Task = Schema["BenchTask"];
export type Piece = Schema["BenchPiece"];
export type Wet = Schema["BenchWet"];
