use crate::Noise;

/// A cut loaf as it truly is before the camera.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CutLoaf {
    /// Beside the usual height, 1 the usual.
    pub height: f64,
    /// The middle width of its cells, mm.
    pub cell_mm: f64,
    /// How much cells differ: σ of the logarithm of their width.
    pub scatter: f64,
    /// Crumb from white, 0, to dark rye, 1.
    pub dark: f64,
    /// Crust from pale, 0, to dark, 1.
    pub crust: f64,
    /// Height of a dense, wet streak over the base, mm; 0 where there is none.
    pub streak_mm: f64,
}

/// A picture: three bytes a pixel, red, green and blue, row after row from above.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Picture {
    pub width: u32,
    pub height: u32,
    pub rgb: Vec<u8>,
}

type Colour = [f64; 3];

/// The picture, pixels.
const SIZE: (usize, usize) = (360, 270);
/// Pixels in a millimetre.
const SCALE: f64 = 2.5;
/// Half of a loaf's width and its usual height, mm.
const LOAF_MM: (f64, f64) = (62.0, 86.0);
/// How round its corners are, mm.
const ROUND_MM: f64 = 3.0;
/// Below the loaf, mm.
const TABLE_MM: f64 = 8.0;
/// Of the cut face, the share that is cells.
const CELLS: f64 = 0.4;
/// The narrowest and the widest cell that is drawn, mm.
const CELL_MM: (f64, f64) = (0.4, 16.0);
/// Grain of the picture, σ of a colour's 255 steps.
const GRAIN: f64 = 2.5;

const TABLE: Colour = [203.0, 207.0, 209.0];
const CRUMB: (Colour, Colour) = ([240.0, 229.0, 200.0], [134.0, 96.0, 64.0]);
const CRUST: (Colour, Colour) = ([214.0, 162.0, 96.0], [92.0, 46.0, 22.0]);
const STREAK: Colour = [158.0, 130.0, 86.0];

/// Photographs a cut loaf: its outline with a crust about it, and cells of a logarithmic-normal width,
/// as many as make up two fifths of the face, none where the crumb is dense and wet.
pub fn draw_cut_loaf(loaf: &CutLoaf, seed: u64) -> Picture {
    let mut noise = Noise::seeded(seed);
    let mut face = Face { loaf, shade: vec![0.0; SIZE.0 * SIZE.1] };
    face.cells(&mut noise);
    let pixels = (0..SIZE.0 * SIZE.1).flat_map(|at| {
        let (x, y) = millimetres(at % SIZE.0, at / SIZE.0);
        let grain = noise.of(GRAIN);
        face.colour(x, y, face.shade[at]).map(|of| (of + grain).clamp(0.0, 255.0) as u8)
    });
    let rgb = pixels.collect();
    Picture { width: SIZE.0 as u32, height: SIZE.1 as u32, rgb }
}

/// From the middle of the loaf's base, to the right and upwards.
fn millimetres(column: usize, row: usize) -> (f64, f64) {
    let x = (column as f64 - SIZE.0 as f64 / 2.0) / SCALE;
    let y = (SIZE.1 as f64 - row as f64) / SCALE - TABLE_MM;
    (x, y)
}

struct Face<'a> {
    loaf: &'a CutLoaf,
    /// What cells add to each pixel's light, −1 to 1.
    shade: Vec<f64>,
}

impl Face<'_> {
    fn height(&self) -> f64 {
        LOAF_MM.1 * self.loaf.height
    }

    /// How deep in the loaf a point lies, mm: its distance to sides, base and dome, rounded where they
    /// meet.
    fn depth(&self, x: f64, y: f64) -> f64 {
        let across = (x / LOAF_MM.0).clamp(-1.0, 1.0);
        let dome = self.height() * (0.76 + 0.24 * (1.0 - across * across).sqrt());
        let edges = [LOAF_MM.0 - x.abs(), y, dome - y];
        let sum: f64 = edges.iter().map(|mm| (-mm / ROUND_MM).exp()).sum();
        -ROUND_MM * sum.ln()
    }

    fn cells(&mut self, noise: &mut Noise) {
        let CutLoaf { cell_mm, scatter, streak_mm, .. } = *self.loaf;
        let face = 2.0 * LOAF_MM.0 * self.height();
        let one = std::f64::consts::FRAC_PI_4 * cell_mm.powi(2) * (2.0 * scatter.powi(2)).exp();
        for _ in 0..(CELLS * face / one) as usize {
            let x = noise.between(-LOAF_MM.0, LOAF_MM.0);
            let y = noise.between(0.0, self.height());
            let wide = (cell_mm * noise.of(scatter).exp()).clamp(CELL_MM.0, CELL_MM.1);
            let high = wide * noise.between(0.6, 1.0);
            if self.depth(x, y) > 2.0 + wide / 2.0 && y > streak_mm + high / 2.0 {
                self.cell((x, y), (wide / 2.0, high / 2.0));
            }
        }
    }

    /// A hollow lit from above: dark at its upper rim, lighter at its lower.
    fn cell(&mut self, (x, y): (f64, f64), (wide, high): (f64, f64)) {
        let deep = 0.12 + 0.3 * wide / (wide + 1.5);
        let column =
            |mm: f64| (mm * SCALE + SIZE.0 as f64 / 2.0).clamp(0.0, SIZE.0 as f64) as usize;
        let row = |mm: f64| {
            (SIZE.1 as f64 - (mm + TABLE_MM) * SCALE).clamp(0.0, SIZE.1 as f64 - 1.0) as usize
        };
        for row in row(y + high)..=row(y - high) {
            for column in column(x - wide)..column(x + wide) {
                let (at_x, at_y) = millimetres(column, row);
                let (across, up) = ((at_x - x) / wide, (at_y - y) / high);
                let out = across * across + up * up;
                if out < 1.0 {
                    let light = -deep * ((1.0 - out).sqrt() * 0.6 + 0.4 * up.max(0.0));
                    let shade = &mut self.shade[row * SIZE.0 + column];
                    *shade = shade.min(light);
                }
            }
        }
    }

    fn colour(&self, x: f64, y: f64, shade: f64) -> Colour {
        let depth = self.depth(x, y);
        if depth < 0.0 {
            return TABLE;
        }
        let CutLoaf { dark, crust, streak_mm, .. } = *self.loaf;
        let crumb = mixed(CRUMB.0, CRUMB.1, dark);
        let wet = 0.7 / (1.0 + ((y - streak_mm) / 0.8).exp());
        let crumb = if streak_mm > 0.0 { mixed(crumb, STREAK, wet) } else { crumb };
        let baked = (-(depth / 2.2).powi(2)).exp();
        mixed(crumb, mixed(CRUST.0, CRUST.1, crust), baked).map(|of| of * (1.0 + shade))
    }
}

fn mixed(one: Colour, other: Colour, share: f64) -> Colour {
    let share = share.clamp(0.0, 1.0);
    std::array::from_fn(|at| one[at] + (other[at] - one[at]) * share)
}
