/* Web Crypto stands in Node, workers and browsers alike; its shape is told here as for TextDecoder. */
declare const crypto: { readonly subtle: { digest(name: string, data: Uint8Array): Promise<ArrayBuffer> } };

/** SHA-256 (FIPS 180-4) of a file's bytes in hexadecimal: two files with the same fingerprint are the same file. */
export async function fingerprint(bytes: Uint8Array): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(digest, (b) => b.toString(16).padStart(2, '0')).join('');
}
