use anyhow::{Context, Result};
use thirtyfour::{By, WebElement};

use super::says;
use crate::Page;

/// The house plan.
pub struct PlanScreen<'a>(pub &'a Page);

impl PlanScreen<'_> {
    says! {
        /// Waits until what is known of the selected point says so.
        point_says: "[data-testid=point-facts]";
        /// Waits until the count of the floor does.
        floor_says: "[data-testid=floor-count]";
        /// Waits until what is understood of the typed room reads so.
        room_read: "[data-testid=room-read]";
        /// Waits until what is understood of a list of rooms does.
        rooms_read: "[data-testid=rooms-read]";
        /// Waits until a note about the drawing, of rooms that overlap for one, says so.
        note_says: "[data-testid=plan-note]";
        /// Waits until what is understood of a drawing that comes in reads so.
        drawing_read: "[data-testid=drawing-read]";
        /// Waits until what is wrong with the drawing does.
        drawing_error: "[data-testid=drawing-error]";
        /// Waits until what is wrong with the picture underneath does.
        backdrop_error: "[data-testid=backdrop-error]";
        /// Waits until the walk from room to room says so.
        walk_says: "[data-testid=walk]";
    }

    /// Types a room and taps the side of its neighbor where it goes; waits until it is drawn.
    pub async fn room(&self, text: &str, side: &str) -> Result<()> {
        let page = self.0;
        let name = text.split(|c: char| c.is_ascii_digit()).next().unwrap_or(text).trim();
        page.fill("Room and size", text).await?;
        page.press(side).await?;
        page.find(By::Css(format!("[data-testid=plan] [aria-label^='{name},']"))).await.map(drop)
    }

    /// Takes what the next tap places, and waits until the screen says what to tap.
    pub async fn take(&self, what: &str, says: &str) -> Result<()> {
        self.0.press(what).await?;
        self.0.wait_text(By::Css("[data-testid=placing]"), says).await
    }

    /// Taps the plan at a place, in millimeters of the floor.
    pub async fn tap(&self, x: i32, y: i32) -> Result<()> {
        let script = format!(
            "const svg = document.querySelector('[data-testid=plan]');
             const at = new DOMPoint({x}, {y}).matrixTransform(svg.getScreenCTM());
             svg.dispatchEvent(new MouseEvent('click', {{ bubbles: true, clientX: at.x, clientY: at.y }}));"
        );
        self.0.driver.execute(script, vec![]).await?;
        Ok(())
    }

    /// Where a place of the floor is in the window, in pixels.
    pub async fn pixel(&self, x: i32, y: i32) -> Result<(i64, i64)> {
        let script = format!(
            "const svg = document.querySelector('[data-testid=plan]');
             const at = new DOMPoint({x}, {y}).matrixTransform(svg.getScreenCTM());
             return [Math.round(at.x), Math.round(at.y)];"
        );
        self.0.driver.execute(script, vec![]).await?.convert().context("no place")
    }

    /// The symbol of a point whose spoken name begins so, once it is there.
    pub async fn point(&self, spoken: &str) -> Result<WebElement> {
        self.0.find(By::Css(format!("[data-testid=plan] [data-point] [aria-label^='{spoken}']"))).await
    }

    /// Waits until so many points are drawn.
    pub async fn wait_points(&self, count: usize) -> Result<()> {
        self.0.find(By::XPath(format!("//*[@data-testid='plan'][count(.//*[@data-point])={count}]"))).await.map(drop)
    }

    /// How many points are drawn.
    pub async fn points(&self) -> Result<usize> {
        self.0.count("[data-testid=plan] [data-point]").await
    }

    /// Waits until the drawing has something whose spoken name begins so.
    pub async fn shows(&self, spoken: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=plan] [aria-label^=\"{spoken}\"]"))).await.map(drop)
    }

    /// Where a point's symbol is drawn: waits until its distance from the left begins with these digits (millimeters).
    pub async fn wait_stands(&self, point: &str, left: &str) -> Result<()> {
        self.0.find(By::Css(stands(point, left))).await.map(drop)
    }

    /// Waits until it does not any more.
    pub async fn wait_stands_not(&self, point: &str, left: &str) -> Result<()> {
        self.0.wait_gone(By::Css(stands(point, left))).await
    }

    /// Waits until another point than this one is selected.
    pub async fn wait_selected_other_than(&self, point: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-point]:not([data-point={point}]) [aria-pressed=true]"))).await.map(drop)
    }

    /// Gives the focus to a room (`r:pantry`) or a point (`p:counter`).
    pub async fn focus(&self, place: &str) -> Result<()> {
        self.0.driver.execute("document.querySelector(`[data-place=\"${arguments[0]}\"]`).focus()", vec![place.into()]).await?;
        Ok(())
    }

    /// How many notes about the drawing there are.
    pub async fn notes(&self) -> Result<usize> {
        self.0.count("[data-testid=plan-note]").await
    }

    /// How many windows are drawn.
    pub async fn windows(&self) -> Result<usize> {
        self.0.count("[data-opening=window]").await
    }

    /// Waits until the walls of a room read so.
    pub async fn walls_say(&self, room: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[aria-label='Walls of {room}']")), words).await
    }

    /// Goes on to the room that the walk offers next.
    pub async fn walk_on_to(&self, room: &str) -> Result<()> {
        let next = format!("//section[h2[.='Next']]//button[starts-with(., '{room}')]");
        let next = self.0.find(By::XPath(next)).await?;
        next.scroll_into_view().await?;
        Ok(next.click().await?)
    }

    /// Taps the picture that is to lie underneath, so far right of its middle; gives how wide it is shown. In pixels.
    pub async fn tap_picture(&self, right: i64) -> Result<f64> {
        let shown = self.0.test_id("backdrop-picture").await?;
        shown.scroll_into_view().await?;
        self.0.driver.action_chain().move_to_element_with_offset(&shown, right, 0).click().perform().await?;
        Ok(shown.rect().await?.width)
    }

    /// How wide the picture underneath is, in millimeters of the floor.
    pub async fn picture_width(&self) -> Result<f64> {
        let image = self.0.find(By::Css("[data-testid=plan] image")).await?;
        Ok(image.attr("width").await?.context("no width")?.parse()?)
    }
}

fn stands(point: &str, left: &str) -> String {
    format!("[data-point={point}] > g[transform^='translate({left}']")
}
