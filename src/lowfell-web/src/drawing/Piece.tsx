/** What of a piece is measured: its surface, its outer edges, or the joints in it. */
export type Measured = "area" | "edges" | "joints";

type Part = { area: string; edges: string; joints?: string; behind?: boolean };

const courses =
  "M30 78H170M30 95H170M30 112H170M65 60V78M135 60V78M48 78V95M100 78V95M152 78V95M65 95V112M135 95V112M100 112V130";

// Pieces drawn for Lowfell, with the parts that usually get layers of their own.
const pieces: Record<string, { outline: string; parts: Record<string, Part> }> = {
  wall: {
    outline: "M30 60L60 40H200V110L170 130H30zM30 60H170V130M170 60L200 40",
    parts: {
      "Front face": { area: "M30 60H170V130H30z", edges: "M30 60H170V130H30z", joints: courses },
      "Top course": {
        area: "M30 60L60 40H200L170 60z",
        edges: "M30 60L60 40H200L170 60z",
        joints: "M76 60L106 40M124 60L154 40",
      },
      "Back face": { area: "M60 40H200V110H60z", edges: "M60 40H200V110H60z", behind: true },
    },
  },
  building: {
    outline:
      "M40 76H130V132H40zM130 76L166 46L202 76V132H130M40 76L76 46H166M60 132V100H80V132M96 90H116V110H96zM156 90H176V110H156z",
    parts: {
      Walls: {
        area: "M40 76H130V132H80V100H60V132H40zM130 76L166 46L202 76V132H130z",
        edges: "M40 76V132H202V76M130 76V132M60 132V100H80V132",
        joints: "M44 122H58M84 122H128M136 122H198M44 84H126M140 82H192",
      },
      Roof: {
        area: "M34 78L74 44H166L132 78z",
        edges: "M34 78L74 44H166L132 78z",
        joints: "M43 70H139M52 62H147M62 53H156M64 78L101 44M98 78L134 44",
      },
      Woodwork: {
        area: "M60 100H80V132H60zM94 88H118V112H94zM99 93V107H113V93zM154 88H178V112H154zM159 93V107H173V93z",
        edges: "M60 100H80V132M94 88H118V112H94zM154 88H178V112H154z",
        joints: "M67 101V131M74 101V131",
      },
      "Window glass": {
        area: "M99 93H113V107H99zM159 93H173V107H159z",
        edges: "M99 93H113V107H99zM159 93H173V107H159z",
      },
    },
  },
  vehicle: {
    outline:
      "M40 74L62 48H150L166 74L206 82V104H34V82zM66 52H100L108 68H54zM44 104H196a12 12 0 0 1 0 26H44a12 12 0 0 1 0-26z",
    parts: {
      Hull: {
        area: "M40 74L62 48H150L166 74L206 82V104H34V82z",
        edges: "M40 74L62 48H150L166 74L206 82V104H34V82z",
        joints: "M34 90H206M118 48V90M150 76V104",
      },
      "Running gear": {
        area: "M44 104H196a12 12 0 0 1 0 26H44a12 12 0 0 1 0-26z",
        edges: "M44 104H196a12 12 0 0 1 0 26H44a12 12 0 0 1 0-26z",
        joints:
          "M56 117m-8 0a8 8 0 1 0 16 0a8 8 0 1 0-16 0M88 117m-8 0a8 8 0 1 0 16 0a8 8 0 1 0-16 0M120 117m-8 0a8 8 0 1 0 16 0a8 8 0 1 0-16 0M152 117m-8 0a8 8 0 1 0 16 0a8 8 0 1 0-16 0M184 117m-8 0a8 8 0 1 0 16 0a8 8 0 1 0-16 0",
      },
      Glass: { area: "M66 52H100L108 68H54z", edges: "M66 52H100L108 68H54z" },
    },
  },
  base: {
    outline: "M35 80a85 34 0 1 0 170 0a85 34 0 1 0-170 0M35 80v14a85 34 0 0 0 170 0v-14",
    parts: {
      Ground: {
        area: "M35 80a85 34 0 1 0 170 0a85 34 0 1 0-170 0",
        edges: "M35 80a85 34 0 1 0 170 0a85 34 0 1 0-170 0",
        joints: "M70 70l14-6 10 7M110 92l12-5 16 6M140 66l12 4M88 98l10-3",
      },
      Rim: {
        area: "M35 80v14a85 34 0 0 0 170 0v-14a85 34 0 0 1-170 0z",
        edges: "M35 94a85 34 0 0 0 170 0M35 80a85 34 0 0 0 170 0",
      },
    },
  },
};

/** A kind of piece with one of its parts picked out, and what is measured of it. */
export function Piece(props: { kind: string; part?: string; measured?: Measured; className?: string }) {
  const piece = pieces[props.kind];
  if (!piece) return null;
  const part = props.part ? piece.parts[props.part] : undefined;
  const measured = props.measured ?? "area";
  return (
    <svg
      viewBox="20 32 200 106"
      className={props.className}
      aria-hidden="true"
      data-part={part ? props.part : ""}
    >
      <path d={piece.outline} fill="none" stroke="currentColor" strokeWidth="1.4" strokeLinejoin="round" />
      {part && (
        <>
          <path
            d={part.area}
            fill="var(--tide)"
            fillOpacity={measured === "area" ? 0.35 : 0.1}
            fillRule="evenodd"
            stroke="var(--tide)"
            strokeWidth="1.2"
            strokeDasharray={part.behind ? "4 3" : undefined}
          />
          {measured === "edges" && (
            <path d={part.edges} fill="none" stroke="var(--tide)" strokeWidth="4" strokeLinejoin="round" />
          )}
          {measured === "joints" && part.joints && (
            <path d={part.joints} fill="none" stroke="var(--tide)" strokeWidth="3" />
          )}
        </>
      )}
    </svg>
  );
}
