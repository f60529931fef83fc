const MOST_LAYERS = 1_000_000;

/** Time and filament by layer, added up beside the arrays as long as the layer is the same. */
export class LayerSums {
  readonly #time: number[] = [];
  readonly #extruding: number[] = [];
  readonly #filament: number[] = [];
  #layer = 0;
  #time_s = 0;
  #extruding_s = 0;
  #filament_mm = 0;

  /** Adds a move; what precedes the first layer (below 0) is booked to it. */
  add(layer: number, time: number, extruding: number, filament: number): void {
    const at = layer < 0 ? 0 : layer;
    if (at !== this.#layer) {
      this.#flush();
      this.#layer = at < MOST_LAYERS ? at : MOST_LAYERS - 1;
    }
    this.#time_s += time;
    this.#extruding_s += extruding;
    this.#filament_mm += filament;
  }

  /** The sums of each layer so far. */
  done(): { time: number[]; extruding: number[]; filament: number[] } {
    this.#flush();
    return { time: this.#time, extruding: this.#extruding, filament: this.#filament };
  }

  #flush(): void {
    const at = this.#layer;
    while (this.#time.length <= at) {
      this.#time.push(0);
      this.#extruding.push(0);
      this.#filament.push(0);
    }
    this.#time[at] = (this.#time[at] ?? 0) + this.#time_s;
    this.#extruding[at] = (this.#extruding[at] ?? 0) + this.#extruding_s;
    this.#filament[at] = (this.#filament[at] ?? 0) + this.#filament_mm;
    this.#time_s = 0;
    this.#extruding_s = 0;
    this.#filament_mm = 0;
  }
}
