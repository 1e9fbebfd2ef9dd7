//! The two faces of the card, shipped with the program (SIL Open Font License, beside the files).

use std::sync::{Arc, LazyLock, Mutex, PoisonError};

use krilla::text::Font;
use rustybuzz::{Direction, Face, Script, ShapePlan, UnicodeBuffer, script};

pub(crate) struct Type {
    pub(crate) font: Font,
    face: Face<'static>,
    head: bool,
    /// How texts of a script are shaped: made once, for that takes longer than the shaping.
    plans: Mutex<Vec<(Direction, Script, Arc<ShapePlan>)>>,
}

impl Type {
    fn new(bytes: &'static [u8], head: bool) -> Self {
        let font = Font::new(bytes.to_vec().into(), 0).expect("the shipped font is a font; anything else is a bug");
        let face = Face::from_slice(bytes, 0).expect("the shipped font is a font; anything else is a bug");
        Self { font, face, head, plans: Mutex::default() }
    }

    /// The face of numbers and headings.
    pub(crate) const fn is_head(&self) -> bool {
        self.head
    }

    /// Width of a text at a type size of 1.
    pub(crate) fn width(&self, text: &str) -> f64 {
        let mut buffer = UnicodeBuffer::new();
        buffer.push_str(text);
        buffer.guess_segment_properties();
        let shaped = rustybuzz::shape_with_plan(&self.face, &self.plan(&buffer), buffer);
        let units: i32 = shaped.glyph_positions().iter().map(|glyph| glyph.x_advance).sum();
        f64::from(units) / f64::from(self.face.units_per_em())
    }

    fn plan(&self, buffer: &UnicodeBuffer) -> Arc<ShapePlan> {
        let (direction, of) = (buffer.direction(), buffer.script());
        let mut plans = self.plans.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((.., plan)) = plans.iter().find(|(known, script, _)| (*known, *script) == (direction, of)) {
            return Arc::clone(plan);
        }
        let known = Some(of).filter(|of| *of != script::UNKNOWN);
        let plan = Arc::new(ShapePlan::new(&self.face, direction, known, buffer.language().as_ref(), &[]));
        plans.push((direction, of, Arc::clone(&plan)));
        plan
    }

    /// The text with every character that the face lacks shown as a question mark.
    pub(crate) fn shown(&self, text: &str) -> String {
        text.chars().map(|c| if self.face.glyph_index(c).is_some() { c } else { '?' }).collect()
    }
}

/// Numbers and headings.
pub(crate) static HEAD: LazyLock<Type> = LazyLock::new(|| Type::new(include_bytes!("../fonts/Overpass_700Bold.ttf"), true));
/// Text.
pub(crate) static TEXT: LazyLock<Type> =
    LazyLock::new(|| Type::new(include_bytes!("../fonts/AtkinsonHyperlegibleNext_400Regular.ttf"), false));
