import type { ReactNode } from "react";
import type { HeadShape, Section } from "../api/types";
import type { Camera, Stance } from "./camera";
import type { Pictured } from "./drawn";
import type { Box } from "./HeadPicture";
import type { Flat, Vec } from "./vectors";

/** What a tool sees of the head when it draws over it. */
export interface View {
  head: HeadShape;
  camera: Camera;
  /** The place on the picture under a pointer, in the picture's mm. */
  placeOf: (event: { clientX: number; clientY: number }) => Flat;
}

/** What can be laid over the head in place of its parting, such as the hair that hangs from it. */
export interface HeadLayer {
  key: string;
  name: string;
  /** The part of the picture it takes. */
  box: Box;
  /** What there is to know of it, in a line under the head. */
  hint: string;
  /** What is set of it; stands beside the hint. */
  settings?: ReactNode;
  /** Undefined until it is known; the parting stands there so long. */
  picture: (view: LayerView) => ReactNode | undefined;
  /** What is drawn over the picture. */
  over?: (view: LayerView) => ReactNode;
}

/** What a layer sees of the head when it is drawn. */
export interface LayerView {
  pictured: Pictured;
  camera: Camera;
  stance: Stance;
  box: Box;
  moving: boolean;
  /** True for the small pictures of the fixed views. */
  small: boolean;
}

/** What a finger on the head does. The head knows nothing of what comes of it. */
export interface HeadTool {
  key: string;
  /** What the tool does, in a word. */
  name: string;
  /** What a finger does, in a line under the head. */
  hint: string;
  /** Sections picked, the last one picked last. */
  picked: readonly Section[];
  /** Names of all that is picked, to be ringed; a hook is named by hookKey. */
  chosen: ReadonlySet<string>;
  pick: (id: string) => void;
  pickNone: () => void;
  /** Whether arrow keys pick the section they come to. */
  picksOnTheWay: boolean;
  /** A tap on a section; without it the section is picked. */
  tap?: (section: Section) => void;
  /** A tap beside all sections. */
  tapPlace?: (at: Vec, camera: Camera) => void;
  /** A drag that begins on the head is the tool's; without it the head is turned. */
  drag?: {
    begin?: (under: Vec) => void;
    move: (at: Flat, under: Vec | undefined) => void;
    end: (camera: Camera) => void;
  };
  /** A key pressed on a section; tells whether it was taken. */
  press?: (key: string, here: Section) => boolean;
  /** What is drawn over the head. */
  over?: (view: View) => ReactNode;
}
