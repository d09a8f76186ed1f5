import { fromBufferPromise } from 'yauzl';
import { InputError } from '@/core/circuit/inputError';

/** What an archive may be at most. */
export interface ZipLimits {
  entries: number;
  /** Bytes of one file, unpacked. */
  each: number;
  /** Bytes of all files, unpacked. */
  total: number;
  /** How many times smaller a file may be packed; text of a drawing comes to 30. */
  ratio: number;
}

/** Below this a ratio says nothing: a file of a hundred equal letters packs to a few bytes. */
const RATIO_FROM_BYTES = 100_000;
const NO_ZIP = 'this is no ZIP file, or a damaged one; choose a machine archive, such as G-4.spiraxis.zip';

/**
 * Unpacks an archive file by file, counting as it goes: nothing is believed that the archive says of itself. Throws
 * `InputError` where it is none, names a file twice, or is larger than the limits.
 */
export async function unpackZip(bytes: Uint8Array, limits: ZipLimits): Promise<Map<string, Uint8Array>> {
  const files = new Map<string, Uint8Array>();
  let total = 0;
  try {
    const zip = await fromBufferPromise(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
    if (zip.entryCount > limits.entries)
      throw new InputError(
        'archive',
        `it holds ${zip.entryCount} files; a machine’s has at most ${limits.entries}`,
      );
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName;
      if (name.endsWith('/')) continue;
      const shown = name.length > 60 ? `${name.slice(0, 60)}…` : name;
      if (files.has(name)) throw new InputError('archive', `it holds “${shown}” twice`);
      const pieces: Uint8Array[] = [];
      let size = 0;
      for await (const piece of await zip.openReadStreamPromise(entry)) {
        pieces.push(piece as Uint8Array);
        size += (piece as Uint8Array).byteLength;
        if (size > limits.each)
          throw new InputError('archive', `“${shown}” is over ${limits.each / 1e6} MB unpacked`);
        if (total + size > limits.total)
          throw new InputError('archive', `unpacked it is over ${limits.total / 1e6} MB; take drawings out`);
        if (size > RATIO_FROM_BYTES && size > limits.ratio * Math.max(1, entry.compressedSize))
          throw new InputError('archive', `“${shown}” is packed as no drawing or table is; pack it anew`);
      }
      total += size;
      files.set(name, new Uint8Array(Buffer.concat(pieces)));
    }
    return files;
  } catch (error) {
    // Whatever the library finds wrong is wrong with the file: it reads a buffer and nothing else.
    if (error instanceof InputError) throw error;
    throw new InputError('archive', NO_ZIP);
  }
}
