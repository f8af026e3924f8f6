const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});

/**
 * The checksum that zip files carry, as eight hexadecimal digits.
 *
 * ISO 3309 / ITU-T V.42, 8.1.1.6.2; table as in RFC 1952, section 8.
 */
export function crc32(bytes: Uint8Array): string {
  let c = 0xffffffff;
  for (const byte of bytes) c = TABLE[(c ^ byte) & 0xff] ^ (c >>> 8);
  return ((c ^ 0xffffffff) >>> 0).toString(16).padStart(8, '0');
}
