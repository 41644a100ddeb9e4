/** Compression by the browser itself. */
async function through(
  bytes: Uint8Array,
  stream: CompressionStream | DecompressionStream,
): Promise<Uint8Array> {
  const piped = new Blob([new Uint8Array(bytes)]).stream().pipeThrough(stream)
  return new Uint8Array(await new Response(piped).arrayBuffer())
}
export const gzip = (bytes: Uint8Array) => through(bytes, new CompressionStream('gzip'))
