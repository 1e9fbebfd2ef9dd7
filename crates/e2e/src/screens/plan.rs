use anyhow::{Context, Result};
use thirtyfour::{By, WebElement};

use crate::Page;

/// The house plan.
pub struct PlanScreen<'a>(pub &'a Page);

impl PlanScreen<'_> {
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
}
