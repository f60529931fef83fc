import { describe, expect, it } from 'vitest';
import { describePasskeyFault } from './describe-passkey-fault';

const named = (name: string) => Object.assign(new Error('of the browser'), { name });

describe('what a browser says of a passkey', () => {
  it.each([
    ['NotAllowedError', /No passkey was used/],
    ['AbortError', /No passkey was used/],
    ['InvalidStateError', /has a passkey here already/],
    ['SecurityError', /a name, over a certificate/],
    ['OddError', /of the browser/],
  ])('is told of %s as a person understands it', (name, words) => {
    expect(() => describePasskeyFault(named(name))).toThrow(words);
  });
});
