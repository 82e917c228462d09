import type { Neck } from '../../api/client'
import { NeckScale } from '../../draw/neck'

/** Names of the strings, and beside them marks of open ones, are left of the board. */
const left = 74
const right = 8
const top = 24

/** Where everything on a picture of a neck lies, in its own units, mirrored for the left-handed. */
export class NeckFrame {
  readonly top = top
  readonly scale: NeckScale

  constructor(
    readonly neck: Neck,
    readonly strings: number,
    /** The wires that are the ends of what is shown. */
    readonly from: number,
    readonly to: number,
    readonly width: number,
    /** From string to string. */
    readonly gap: number,
  ) {
    this.scale = new NeckScale(neck, from, to, left, width - left - right)
  }

  get bottom(): number {
    return top + this.gap * (this.strings - 1)
  }
  get height(): number {
    return this.bottom + 46
  }
  /** Left of the board, so far from its edge. */
  beside(away: number): number {
    return this.x(left - away)
  }
  x(at: number): number {
    return this.neck.leftHanded ? this.width - at : at
  }
  y(string: number): number {
    return top + (string - 1) * this.gap
  }
  wire(fret: number): number {
    return this.x(this.scale.wire(fret))
  }
  finger(fret: number): number {
    return this.x(this.scale.finger(fret))
  }
  middle(fret: number): number {
    return (this.wire(fret) + this.wire(fret - 1)) / 2
  }
  span(from: number, to: number): { x: number; width: number } {
    const [a, b] = [this.wire(from), this.wire(to)]
    return { x: Math.min(a, b), width: Math.abs(b - a) }
  }
  /** The place nearest to a point. */
  at(x: number, y: number): { string: number; fret: number } {
    const string = Math.round((y - top) / this.gap) + 1
    return {
      string: Math.min(this.strings, Math.max(1, string)),
      fret: this.scale.fretAt(this.x(x)),
    }
  }
}

/** The place under the mouse, anywhere on the picture. */
export function placeUnder(frame: NeckFrame, event: MouseEvent): { string: number; fret: number } {
  const on = event.currentTarget as SVGElement
  const { left: edge, top: head } = (on.ownerSVGElement ?? on).getBoundingClientRect()
  return frame.at(event.clientX - edge, event.clientY - head)
}
