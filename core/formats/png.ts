/** The resolution of a PNG, which whoever makes the picture does not write into it. */
import crc32 from 'crc-32'

/** Bytes before the first chunk, and of a chunk beside its data. */
const SIGNATURE = 8
const OVERHEAD = 12

/** @param dots to a millimetre @returns the file with a chunk pHYs after its header (PNG, 11.3.4.3) */
export function withResolution(png: Uint8Array, dots: number): Uint8Array {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength)
  const header = SIGNATURE + OVERHEAD + view.getUint32(SIGNATURE)
  const chunk = new Uint8Array(OVERHEAD + 9)
  const out = new DataView(chunk.buffer)
  out.setUint32(0, 9)
  chunk.set([0x70, 0x48, 0x59, 0x73], 4)
  const each = Math.round(1000 * dots)
  out.setUint32(8, each)
  out.setUint32(12, each)
  out.setUint8(16, 1)
  out.setInt32(17, crc32.buf(chunk.subarray(4, 17)))
  const result = new Uint8Array(png.length + chunk.length)
  result.set(png.subarray(0, header))
  result.set(chunk, header)
  result.set(png.subarray(header), header + chunk.length)
  return result
}
