use anyhow::Result;
use thirtyfour::{By, Key};

use crate::Page;

/// Rooms and points.
pub struct House<'a>(pub &'a Page);

impl House<'_> {
    /// Adds a room; it is the one shown then.
    pub async fn add_room(&self, name: &str) -> Result<()> {
        self.0.fill("New room", name).await?;
        let field = self.0.field("New room").await?;
        field.send_keys(Key::Enter + "").await?;
        self.0.find(By::XPath(format!("//h2[starts-with(normalize-space(.), 'Add to {name}')]"))).await?;
        Ok(())
    }

    /// Adds points of one kind in a row, from the keyboard.
    pub async fn add_points(&self, kind: &str, names: &[&str]) -> Result<()> {
        self.0.press(kind).await?;
        let label = if kind == "Appliance" { "Which appliance" } else { "Where in the room" };
        for name in names {
            let before = self.points().await?;
            let field = self.0.field(label).await?;
            field.send_keys(*name).await?;
            field.send_keys(Key::Enter + "").await?;
            self.wait_points(before + 1).await?;
        }
        Ok(())
    }

    /// How many points the room shows.
    pub async fn points(&self) -> Result<usize> {
        self.0.test_id("points").await?;
        self.0.count("[data-testid=points] > li").await
    }

    /// Waits until the room shows so many.
    pub async fn wait_points(&self, count: usize) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=points] > li:nth-of-type({count})"))).await.map(drop)
    }
}
