import { afterEach, beforeEach, vi } from 'vitest';

/** A stream of events that a page has opened. */
export class FakeEventSource extends EventTarget {
  static readonly opened: FakeEventSource[] = [];
  isClosed = false;
  constructor(readonly address: string) {
    super();
    FakeEventSource.opened.push(this);
  }

  close(): void {
    this.isClosed = true;
  }

  /** Says something on the stream. */
  say(name: string, data: object): void {
    this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify(data) }));
  }
}

/** Event streams of the browser that say what a test says; those that were opened, the latest last. */
export function eventStreams(): readonly FakeEventSource[] {
  beforeEach(() => {
    FakeEventSource.opened.length = 0;
    vi.stubGlobal('EventSource', FakeEventSource);
  });
  afterEach(() => vi.unstubAllGlobals());
  return FakeEventSource.opened;
}
