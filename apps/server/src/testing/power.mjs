// Loaded before Zaffet: keeps beside its data directory what a disk would hold after a power cut. A file is there as it
// was when it was last flushed; names come, go and change when their folder is flushed, and a file whose name came so
// but whose content was never flushed is there empty. ZAFFET_DATA is the directory, ZAFFET_DISK the image.
import fs from 'node:fs';
import { syncBuiltinESMExports } from 'node:module';
import { dirname, join, relative, resolve } from 'node:path';

const root = resolve(process.env.ZAFFET_DATA);
const disk = process.env.ZAFFET_DISK;
const { fsyncSync } = fs;
/** Where in the image a file or folder lies, by its inode. */
const lies = new Map();

const imageOf = (path) => join(disk, relative(root, path));
const inside = (path) => path === root || path.startsWith(`${root}/`);

function note(path, image) {
  lies.set(fs.statSync(path).ino, image);
}

/** What lay under a folder that was renamed lies under its new name. */
function moved(from, to) {
  for (const [ino, image] of lies)
    if (image === from || image.startsWith(`${from}/`)) lies.set(ino, to + image.slice(from.length));
}

function flushedFile(path) {
  const image = imageOf(path);
  fs.mkdirSync(dirname(image), { recursive: true });
  // Whole or as before: a disk does not empty a file in order to fill it anew.
  fs.copyFileSync(path, `${disk}.new`);
  fs.renameSync(`${disk}.new`, image);
  note(path, image);
}

function flushedFolder(path) {
  const image = imageOf(path);
  fs.mkdirSync(image, { recursive: true });
  note(path, image);
  const names = fs.readdirSync(path);
  for (const name of names) {
    const real = join(path, name);
    const there = join(image, name);
    const { ino } = fs.statSync(real);
    const known = lies.get(ino);
    if (known !== undefined && known !== there && fs.existsSync(known)) {
      fs.rmSync(there, { recursive: true, force: true });
      fs.renameSync(known, there);
      moved(known, there);
    } else if (!fs.existsSync(there)) {
      if (fs.statSync(real).isDirectory()) fs.mkdirSync(there);
      else fs.writeFileSync(there, '');
      note(real, there);
    }
  }
  for (const name of fs.readdirSync(image))
    if (!names.includes(name)) fs.rmSync(join(image, name), { recursive: true });
}

fs.fsyncSync = (file) => {
  fsyncSync(file);
  const path = fs.readlinkSync(`/proc/self/fd/${file}`);
  if (!inside(path)) return;
  if (fs.fstatSync(file).isDirectory()) flushedFolder(path);
  else flushedFile(path);
};
syncBuiltinESMExports();
