/** What the API answered. */
export interface Answer<Content = Record<string, unknown>> {
  status: number;
  type: string;
  content: Content;
}

/** The API of a server, as a program speaks to it. */
export interface Api {
  call: (
    method: string,
    path: string,
    content?: BodyInit | object,
    headers?: Record<string, string>,
  ) => Promise<Answer>;
  /** The content of an answer that must be 200. */
  get: <Content>(path: string) => Promise<Content>;
}

/** Speaks to the API of a server at an address: objects go as JSON, all else as bytes. */
export function apiOf(url: () => string): Api {
  const call: Api['call'] = async (method, path, content, headers = {}) => {
    const isJson = content !== undefined && content.constructor === Object;
    const response = await fetch(`${url()}/api/v1${path}`, {
      method,
      headers: {
        'content-type': isJson ? 'application/json' : 'application/octet-stream',
        // A connection that lay idle while this process was packing is none to write on.
        connection: 'close',
        ...headers,
      },
      ...(content !== undefined && {
        body: isJson ? JSON.stringify(content) : (content as BodyInit),
      }),
    });
    const text = await response.text();
    return {
      status: response.status,
      type: response.headers.get('content-type') ?? '',
      content: (text === '' ? {} : JSON.parse(text)) as Record<string, unknown>,
    };
  };
  const get = async <Content>(path: string): Promise<Content> => {
    const { status, content } = await call('GET', path);
    if (status !== 200) throw new Error(`GET ${path}: ${status} ${String(content.detail)}`);
    return content as unknown as Content;
  };
  return { call, get };
}
