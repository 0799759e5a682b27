/** Line drawings of the steps of shaping, 120 × 80: dough lying flat, hands left out, arrows for moves. */

export interface LineDrawing {
  /** Outlines of dough. */
  dough: string[];
  /** Filling, or what is brushed. */
  filling?: string[];
  /** Cuts, creases and edges. */
  ink?: string[];
  /** Moves, with a head at their end. */
  arrows?: string[];
}

const TRIANGLE = "M20,68 H100 L60,8 Z";
const SQUARE = "M28,10 H92 V70 H28 Z";
const OBLONG = "M36,6 H84 V74 H36 Z";
const ROLLED = "M16,46 C24,22 96,22 104,46 C90,54 30,54 16,46 Z";
const DISC = "M60,12 a28,28 0 1 0 0.1,0 Z";
const RING = "M60,12 a28,28 0 1 0 0.1,0 Z M60,24 a16,16 0 1 1 -0.1,0 Z";
const DOT = "M60,32 a8,8 0 1 0 0.1,0 Z";

export const DRAWINGS: Record<string, LineDrawing> = {
  lift: {
    dough: ["M24,36 H96 V46 H24 Z"],
    ink: ["M10,50 H88"],
    arrows: ["M60,34 V14"],
  },
  turn_over: {
    dough: ["M30,42 H90 V54 H30 Z"],
    ink: ["M30,42 H90"],
    arrows: ["M40,34 C44,8 76,8 80,34"],
  },
  dock: {
    dough: [SQUARE],
    ink: [
      "M42,26 v5 M60,26 v5 M78,26 v5 M42,40 v5 M60,40 v5 M78,40 v5 M42,54 v5 M60,54 v5 M78,54 v5",
    ],
  },
  notch: { dough: [TRIANGLE], ink: ["M60,68 V54"] },
  stretch: {
    dough: ["M26,60 H94 L60,20 Z"],
    ink: ["M60,60 V50"],
    arrows: ["M60,28 V6", "M34,68 H16", "M86,68 H104"],
  },
  roll_triangle: {
    dough: ["M32,52 L60,8 L88,52 Z", "M20,52 H100 q6,8 0,16 H20 q-6,-8 0,-16 Z"],
    arrows: ["M60,50 V26"],
  },
  tail: {
    dough: [ROLLED],
    ink: ["M40,29 L46,51 M56,26 V54 M74,27 L70,52", "M10,60 H110", "M52,54 h16"],
  },
  filling_edge: { dough: [OBLONG], filling: ["M36,60 H84 V66 H36 Z"] },
  turn_edge: {
    dough: ["M36,6 H84 V60 H36 Z", "M36,52 H84 V66 H36 Z"],
    filling: ["M36,56 H84 V60 H36 Z"],
    arrows: ["M92,70 C108,64 106,50 92,50"],
  },
  roll_flat: {
    dough: ["M36,6 H84 V44 H36 Z", "M30,42 H90 q5,9 0,18 H30 q-5,-9 0,-18 Z"],
    arrows: ["M60,40 V16"],
  },
  filling_middle: { dough: [SQUARE], filling: [DOT] },
  corners_two: {
    dough: [SQUARE],
    filling: [DOT],
    ink: ["M28,10 L56,36 M92,70 L64,44", "M44,10 L28,26 M76,70 L92,54"],
    arrows: ["M30,12 L50,30", "M90,68 L70,50"],
  },
  corners_four: {
    dough: ["M60,8 L92,40 L60,72 L28,40 Z"],
    ink: ["M60,8 V72 M28,40 H92"],
    arrows: ["M60,18 V33", "M60,62 V47"],
  },
  pinwheel_cuts: {
    dough: [SQUARE],
    ink: ["M28,10 L50,31 M92,10 L70,31 M28,70 L50,49 M92,70 L70,49"],
  },
  pinwheel_fold: {
    dough: [
      "M28,10 L60,40 L60,10 Z",
      "M92,10 L60,40 H92 Z",
      "M92,70 L60,40 V70 Z",
      "M28,70 L60,40 H28 Z",
    ],
    arrows: ["M32,14 L54,35", "M88,14 L66,35"],
  },
  filling_half: {
    dough: [SQUARE],
    filling: ["M36,18 H56 V62 H36 Z"],
    ink: ["M60,10 V70"],
  },
  fold_over: {
    dough: ["M28,10 H60 V70 H28 Z", "M60,10 H92 V70 H60 Z"],
    filling: ["M36,18 H54 V62 H36 Z"],
    arrows: ["M86,30 C84,4 40,4 40,26"],
  },
  press_inside: { dough: ["M40,10 H80 V70 H40 Z"], ink: ["M46,18 H72 M46,62 H72 M46,18 V62"] },
  vent: { dough: ["M40,10 H80 V70 H40 Z"], ink: ["M54,40 H66"], arrows: ["M60,36 V20"] },
  plait_three: {
    dough: [
      "M46,8 H74 V16 H46 Z",
      "M46,16 H54 V74 H46 Z",
      "M56,16 H64 V74 H56 Z",
      "M66,16 H74 V74 H66 Z",
    ],
  },
  plait_over: {
    dough: [
      "M60,6 C40,16 40,24 60,34 C80,44 80,52 60,62 l8,6 C90,54 88,42 66,32 C50,24 50,18 66,10 Z",
      "M60,6 C80,16 80,24 60,34 C40,44 40,52 60,62 l-8,6 C30,54 32,42 54,32 C70,24 70,18 54,10 Z",
    ],
    arrows: ["M96,26 C90,20 82,20 76,24"],
  },
  brush_disc: {
    dough: [DISC],
    filling: ["M60,20 a20,20 0 1 0 0.1,0 Z"],
    arrows: ["M50,40 C54,30 66,30 70,40"],
  },
  lay_slice: {
    dough: [DISC],
    ink: ["M60,40 c4,-6 10,0 4,6 c-8,8 -20,-2 -14,-14 c8,-14 32,-10 32,10 c0,20 -26,28 -42,12"],
  },
  end_under: {
    dough: [DISC],
    ink: ["M84,26 q14,6 12,20"],
    arrows: ["M98,44 C98,58 86,66 70,64"],
  },
  press_flat: { dough: ["M26,48 q34,-14 68,0 v8 H26 Z"], arrows: ["M60,14 V34"] },
  filling_line: { dough: [SQUARE], filling: ["M32,62 L84,12 L88,18 L38,68 Z"] },
  press_middle: {
    dough: ["M60,8 L92,40 L60,72 L28,40 Z"],
    ink: ["M44,24 L76,56"],
    arrows: ["M60,14 V36"],
  },
  stick_across: {
    dough: ["M30,30 H90 q6,10 0,20 H30 q-6,-10 0,-20 Z"],
    ink: ["M60,12 V68 M57,12 V68"],
    arrows: ["M72,14 V28"],
  },
  wings_open: {
    dough: [
      "M58,40 C40,6 12,20 22,40 C12,60 40,74 58,40 Z",
      "M62,40 C80,6 108,20 98,40 C108,60 80,74 62,40 Z",
    ],
    ink: ["M34,40 c0,-10 14,-10 14,0 M86,40 c0,-10 -14,-10 -14,0"],
  },
  eight_cuts: {
    dough: [SQUARE],
    ink: [
      "M50,10 V28 M70,10 V28 M50,70 V52 M70,70 V52 M28,30 H46 M28,50 H46 M92,30 H74 M92,50 H74",
    ],
  },
  points_in: {
    dough: [SQUARE],
    ink: ["M28,10 L50,30 M92,10 L70,30 M28,70 L50,50 M92,70 L70,50"],
    arrows: ["M34,16 L54,35", "M86,64 L66,45"],
  },
  frame_cuts: { dough: ["M24,68 H96 L60,12 Z"], ink: ["M36,68 L56,36 M84,68 L64,36"] },
  frame_open: {
    dough: [SQUARE],
    ink: ["M38,20 H74 M38,20 V56 M82,24 V60 M82,60 H46"],
  },
  frame_cross: {
    dough: [SQUARE, "M38,20 H82 V60 H38 Z", "M92,70 H40 L46,64 H86 V24 L92,18 Z"],
    arrows: ["M84,66 C70,40 52,26 34,14"],
  },
  strip_flat: { dough: ["M14,34 H106 V46 H14 Z"], arrows: ["M40,58 H80"] },
  strip_turn: {
    dough: [
      "M14,34 C34,52 46,52 60,40 C74,28 86,28 106,46 V34 C86,52 74,52 60,40 C46,28 34,28 14,46 Z",
    ],
    arrows: ["M12,26 C4,32 4,48 12,54", "M108,54 C116,48 116,32 108,26"],
  },
  ends_down: {
    dough: [
      "M14,34 C34,52 46,52 60,40 C74,28 86,28 106,46 V34 C86,52 74,52 60,40 C46,28 34,28 14,46 Z",
    ],
    arrows: ["M16,10 V28", "M104,10 V28"],
  },
  tie_loop: {
    dough: [
      "M20,56 C40,60 84,60 84,36 C84,16 44,14 40,34 C38,48 70,54 100,28 l-4,-8 C74,42 52,40 52,34 C54,26 72,28 72,38 C70,48 40,48 22,46 Z",
    ],
    arrows: ["M100,26 L112,14"],
  },
  cup_ready: {
    dough: [],
    ink: ["M30,20 L42,66 H78 L90,20 M26,20 H94"],
    filling: ["M36,26 L45,62 H75 L84,26 L80,26 L72,58 H48 L40,26 Z"],
  },
  into_cup: {
    dough: ["M36,30 C40,6 80,6 84,30 L78,62 H42 Z"],
    ink: ["M30,20 L42,66 H78 L90,20"],
    arrows: ["M60,2 V18"],
  },
  into_tin: {
    dough: ["M22,40 q38,-18 76,0 v16 H22 Z"],
    ink: ["M12,28 L20,64 H100 L108,28"],
    arrows: ["M60,6 V26"],
  },
  tin_half: {
    dough: ["M18,46 q42,-8 84,0 L99,62 H21 Z"],
    ink: ["M12,28 L20,64 H100 L108,28", "M12,28 H108"],
    arrows: ["M60,40 V30"],
  },
  to_and_fro: {
    dough: [
      "M18,58 L30,18 L42,58 L54,18 L66,58 L78,18 L90,58 L102,18 l4,1 L91,68 L79,28 L66,68 L54,28 L42,68 L30,28 L21,60 Z",
    ],
    arrows: ["M40,74 H84"],
  },
  split_along: {
    dough: ["M10,30 H106 q8,10 0,20 H10 q-6,-10 0,-20 Z"],
    ink: ["M6,40 H94"],
    arrows: ["M14,16 H88"],
  },
  cut_sides_up: {
    dough: ["M12,20 H108 V36 H12 Z", "M12,46 H108 V62 H12 Z"],
    ink: ["M12,24 H108 M12,28 H108 M12,32 H108", "M12,50 H108 M12,54 H108 M12,58 H108"],
    arrows: ["M60,40 C76,44 76,12 60,14", "M60,42 C44,46 44,72 60,68"],
  },
  weighed_down: {
    dough: ["M24,56 H96 V62 H24 Z"],
    ink: ["M18,66 H102 M20,50 H100 M24,46 H96 M32,46 V38 M88,46 V38"],
    arrows: ["M60,14 V38"],
  },
  ring_on: { dough: [DISC, RING], arrows: ["M60,2 V14"] },
  score_side: {
    dough: ["M26,26 H94 V58 H26 Z"],
    ink: ["M26,42 H94", "M36,26 V58 M48,26 V58 M60,26 V58 M72,26 V58 M84,26 V58"],
    arrows: ["M102,24 V58"],
  },
};
