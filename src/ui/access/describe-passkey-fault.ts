/** What a browser says of a passkey, as a person is told. @throws Error in words */
export function describePasskeyFault(error: unknown): never {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError' || name === 'AbortError') {
    throw new Error('No passkey was used. Try again, or take the password.');
  }
  if (name === 'InvalidStateError') throw new Error('This device has a passkey here already.');
  if (name === 'SecurityError') {
    throw new Error(
      'The browser has no passkeys at this address: it wants a name, over a certificate that it trusts.',
    );
  }
  throw error;
}
