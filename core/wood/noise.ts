/** Mixes integers into 32 well-spread bits (a finaliser of the murmur kind). */
export function hash(a: number, b = 0, c = 0, d = 0): number {
  let h =
    Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b) ^ Math.imul(c, 0xc2b2ae35) ^ Math.imul(d, 0x27d4eb2f);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return (h ^ (h >>> 15)) >>> 0;
}

/** A number in [0, 1) from integers. */
export const chance = (a: number, b = 0, c = 0, d = 0): number => hash(a, b, c, d) / 4294967296;

const TABLE = 256;
const permutation = new Uint8Array(TABLE * 2 + 2);
/** Offset of the gradient that a permuted corner takes. */
const gradientAt = new Uint16Array(TABLE * 2 + 2);
const gradients = new Float64Array(TABLE * 3);
for (let i = 0; i < TABLE; i++) permutation[i] = i;
for (let i = TABLE - 1; i > 0; i--) {
  const j = hash(i, 77) % (i + 1);
  [permutation[i], permutation[j]] = [permutation[j], permutation[i]];
}
permutation.copyWithin(TABLE, 0, TABLE);
permutation.copyWithin(2 * TABLE, 0, 2);
for (let i = 0; i < gradientAt.length; i++) gradientAt[i] = permutation[i] * 3;
for (let i = 0; i < TABLE; i++) {
  // Directions spread over the whole sphere, not the twelve edge middles: those leave bands along the lattice.
  const z = 1 - (2 * (i + 0.5)) / TABLE;
  const turn = i * 2.399963229728653; // golden angle
  const flat = Math.sqrt(1 - z * z);
  gradients[i * 3] = flat * Math.cos(turn) * 1.4;
  gradients[i * 3 + 1] = flat * Math.sin(turn) * 1.4;
  gradients[i * 3 + 2] = z * 1.4;
}

/**
 * Gradient noise at a point, about -1 to 1, smooth to the second derivative (Perlin 2002, quintic fade). Zero mean
 * and without preferred directions; `seed` shifts the lattice.
 */
export function noise(x: number, y: number, z: number, seed: number): number {
  const xf = Math.floor(x);
  const yf = Math.floor(y);
  const zf = Math.floor(z);
  const xi = (xf + Math.imul(seed, 31)) & 255;
  const yi = (yf + Math.imul(seed, 57)) & 255;
  const zi = (zf + Math.imul(seed, 113)) & 255;
  const px = x - xf;
  const py = y - yf;
  const pz = z - zf;
  const u = px * px * px * (px * (px * 6 - 15) + 10);
  const v = py * py * py * (py * (py * 6 - 15) + 10);
  const w = pz * pz * pz * (pz * (pz * 6 - 15) + 10);
  const a = permutation[xi];
  const b = permutation[xi + 1];
  const aa = permutation[a + yi];
  const ab = permutation[a + yi + 1];
  const ba = permutation[b + yi];
  const bb = permutation[b + yi + 1];
  const g000 = gradientAt[aa + zi];
  const g100 = gradientAt[ba + zi];
  const g010 = gradientAt[ab + zi];
  const g110 = gradientAt[bb + zi];
  const g001 = gradientAt[aa + zi + 1];
  const g101 = gradientAt[ba + zi + 1];
  const g011 = gradientAt[ab + zi + 1];
  const g111 = gradientAt[bb + zi + 1];
  const qx = px - 1;
  const qy = py - 1;
  const qz = pz - 1;
  const n000 = gradients[g000] * px + gradients[g000 + 1] * py + gradients[g000 + 2] * pz;
  const n100 = gradients[g100] * qx + gradients[g100 + 1] * py + gradients[g100 + 2] * pz;
  const n010 = gradients[g010] * px + gradients[g010 + 1] * qy + gradients[g010 + 2] * pz;
  const n110 = gradients[g110] * qx + gradients[g110 + 1] * qy + gradients[g110 + 2] * pz;
  const n001 = gradients[g001] * px + gradients[g001 + 1] * py + gradients[g001 + 2] * qz;
  const n101 = gradients[g101] * qx + gradients[g101 + 1] * py + gradients[g101 + 2] * qz;
  const n011 = gradients[g011] * px + gradients[g011 + 1] * qy + gradients[g011 + 2] * qz;
  const n111 = gradients[g111] * qx + gradients[g111 + 1] * qy + gradients[g111 + 2] * qz;
  const x00 = n000 + u * (n100 - n000);
  const x10 = n010 + u * (n110 - n010);
  const x01 = n001 + u * (n101 - n001);
  const x11 = n011 + u * (n111 - n011);
  const y0 = x00 + v * (x10 - x00);
  const y1 = x01 + v * (x11 - x01);
  return y0 + w * (y1 - y0);
}
