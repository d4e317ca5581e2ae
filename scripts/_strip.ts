import sharp from 'sharp';
const files = process.argv.slice(3);
const S = Number(process.env.S ?? 420);
const imgs = await Promise.all(files.map(f => sharp(f).resize(S, S, { fit: 'inside' }).png().toBuffer()));
await sharp({ create: { width: (S+6) * Math.min(4,files.length), height: (S+6)*Math.ceil(files.length/4), channels: 3, background: '#888' } }).composite(imgs.map((input, i) => ({ input, left: (i%4)*(S+6), top: Math.floor(i/4)*(S+6) }))).png().toFile(process.argv[2]);
