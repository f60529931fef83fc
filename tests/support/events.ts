/** A server-sent event. */
export interface Heard {
  event: string;
  data: Record<string, unknown>;
}

/** Listens to server-sent events at an address, as a browser does. */
export async function listenTo(address: string, headers: Record<string, string> = {}) {
  const gone = new AbortController();
  const response = await fetch(address, { signal: gone.signal, headers });
  const heard: Heard[] = [];
  const read = async () => {
    let text = '';
    for await (const part of response.body ?? []) {
      text += Buffer.from(part as Uint8Array).toString();
      const blocks = text.split('\n\n');
      text = blocks.pop() ?? '';
      for (const block of blocks) {
        const event = /^event: (.*)$/m.exec(block)?.[1];
        const data = /^data: (.*)$/m.exec(block)?.[1];
        if (event && data) heard.push({ event, data: JSON.parse(data) as Heard['data'] });
      }
    }
  };
  /** Whether what was said came to its end, or broke off. */
  const ended = read().then(
    () => 'whole' as const,
    () => 'broken off' as const,
  );
  return {
    status: response.status,
    headers: response.headers,
    heard,
    ended,
    close: () => gone.abort(),
  };
}
