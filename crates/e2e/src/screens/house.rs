use anyhow::Result;
use thirtyfour::{By, Key};

use super::says;
use crate::Page;

/// Rooms and points.
pub struct House<'a>(pub &'a Page);

impl House<'_> {
    says! {
        /// Waits until the list of rooms says so.
        rooms_say: "nav[aria-label=Rooms]";
        /// Waits until the room's points do.
        points_say: "[data-testid=points]";
    }

    /// Goes to a room of the list.
    pub async fn open_room(&self, name: &str) -> Result<()> {
        let room = format!("//nav[@aria-label='Rooms']//button[starts-with(normalize-space(.), '{name}')]");
        Ok(self.0.find(By::XPath(room)).await?.click().await?)
    }

    /// Opens the evidence of a point of the room; of the first one for an empty name.
    pub async fn open_point(&self, name: &str) -> Result<()> {
        let point = format!("//*[@data-testid='points']//button[contains(., '{name}')]");
        Ok(self.0.find(By::XPath(point)).await?.click().await?)
    }

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
        // `240 V appliance`: an appliance, with the tick beside its name.
        let high = kind.strip_prefix("240 V ").map(|kind| kind[..1].to_uppercase() + &kind[1..]);
        let kind = high.as_deref().unwrap_or(kind);
        self.0.press(kind).await?;
        if high.is_some() {
            self.0.press("240 V").await?;
        }
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

    /// Waits until the room shows so many, and no more.
    pub async fn wait_points(&self, count: usize) -> Result<()> {
        self.0.find(By::XPath(format!("//*[@data-testid='points'][count(./li)={count}]"))).await.map(drop)
    }
}
