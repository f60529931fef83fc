import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** Web worker: the SHA-256 of a file, by which it is announced. */
self.onmessage = (event: MessageEvent<File>) => {
  const hash = sha256.create();
  void (async () => {
    for (const reader = event.data.stream().getReader(); ;) {
      const { done, value } = await reader.read();
      if (done) break;
      hash.update(value);
    }
    self.postMessage(bytesToHex(hash.digest()));
  })().catch(() => self.postMessage(null));
};
