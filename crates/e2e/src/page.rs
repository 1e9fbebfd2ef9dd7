use std::path::{Path, PathBuf};
use std::time::Duration;

use anyhow::{Context, Result, bail};
use serde_json::{Value, json};
use thirtyfour::common::command::Selector;
use thirtyfour::error::WebDriverErrorInner;
use thirtyfour::prelude::ScriptRet;
use thirtyfour::{By, Key, WebDriver, WebElement};

use crate::View;

/// How long to wait for the thing itself.
const PATIENCE: Duration = Duration::from_secs(60);

/// Finds what is too small to hit or to read.
const TOO_SMALL: &str = r#"
const found = new Set();
const shown = (el) => el.checkVisibility({ opacityProperty: false, visibilityProperty: true }) && el.getClientRects().length > 0;
const words = (el) => (el.getAttribute('aria-label') ?? el.textContent).trim().slice(0, 40);
for (const el of document.querySelectorAll('button, a[href], input, textarea, select, [role=button], [role=combobox], [role=option]')) {
  // A link within a sentence is as high as its line; a drawing is enlarged by hand.
  if (el.closest('svg') || !shown(el) || getComputedStyle(el).display === 'inline') continue;
  // Of a field the box around it is what is hit; what is out of sight until it has the focus is for keys.
  const hit = (el.matches('input, textarea, [role=combobox]') && el.closest('.MuiInputBase-root, .MuiButtonBase-root, label')) || el;
  const box = hit.getBoundingClientRect();
  if (box.bottom < 0 || el.getAttribute('aria-hidden') === 'true' || el.type === 'file') continue;
  if (Math.round(box.height) < 44 || Math.round(box.width) < 44)
    found.add(`${Math.round(box.width)} x ${Math.round(box.height)} px: ${el.tagName} “${words(el)}”`);
}
const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
for (let text = texts.nextNode(); text; text = texts.nextNode()) {
  const el = text.parentElement;
  if (!text.data.trim() || !shown(el) || el.closest('script, style, noscript, legend, title')) continue;
  const drawing = el.closest('svg') ? el.getScreenCTM()?.a ?? 1 : 1;
  const size = parseFloat(getComputedStyle(el).fontSize) * drawing;
  if (size < (el.closest('[data-testid=plan]') ? 10.95 : 11.95)) found.add(`${size.toFixed(1)} px: “${text.data.trim().slice(0, 40)}”`);
}
const chip = document.querySelector('[data-testid=off-now]');
if (chip && chip.offsetHeight > 44) found.add(`${chip.offsetHeight} px: what is off takes more than a line`);
if (document.documentElement.scrollWidth > innerWidth) found.add(`the page is ${document.documentElement.scrollWidth} px wide`);
return [...found];
"#;

/// Looks in the page itself, and again whenever something on it has changed, for the first of these selectors that finds something
/// (that holds the words, where words are given). Gives that element; where `gone` is asked for, true once nothing is found. Gives
/// null after a while, to be asked anew.
const WAITED_FOR: &str = r#"
const [selectors, words, gone, done] = arguments;
const plain = (text) => text.replace(/\s+/g, ' ').trim();
const first = (kind, query) =>
  kind === 'xpath'
    ? document.evaluate(query, document, null, XPathResult.FIRST_ORDERED_NODE_TYPE, null).singleNodeValue
    : document.querySelector(query);
const says = (el) => plain(el.checkVisibility() ? (el.innerText ?? el.textContent) : '').includes(plain(words));
const look = () => {
  let found = null;
  for (const [kind, query] of selectors) found ??= first(kind, query);
  if (gone) return found === null;
  return found !== null && (words === null || says(found)) ? found : null;
};
let over = false, asked = false;
const settle = (found) => {
  over = true;
  changes.disconnect();
  clearInterval(ticks);
  clearTimeout(end);
  done(found);
};
const again = () => {
  asked = false;
  if (over) return;
  const found = look();
  if (found) settle(found);
};
const soon = () => {
  if (asked) return;
  asked = true;
  setTimeout(again, 8);
};
const changes = new MutationObserver(soon);
changes.observe(document, { subtree: true, childList: true, characterData: true, attributes: true });
// What only the layout changes is seen a little later.
const ticks = setInterval(again, 200);
const end = setTimeout(() => over || settle(null), 5000);
again();
"#;

/// One browser window.
pub struct Page {
    /// The session.
    pub driver: WebDriver,
    /// Its size.
    pub view: View,
}

impl Page {
    pub(crate) fn new(driver: WebDriver, view: View) -> Self {
        Self { driver, view }
    }

    /// Goes to an address.
    pub async fn goto(&self, address: &str) -> Result<()> {
        Ok(self.driver.goto(address).await?)
    }

    /// The element, once it is there.
    pub async fn find(&self, by: By) -> Result<WebElement> {
        self.find_one_of(&[by]).await
    }

    /// What the first of these finds that finds anything, once there is something.
    async fn find_one_of(&self, any: &[By]) -> Result<WebElement> {
        let found = self.waited_for(any, None, false).await?;
        found.with_context(|| format!("not on the page: {any:?}"))?.element().context("no element")
    }

    /// Waits in the page itself (`WAITED_FOR`); nothing when patience is at its end. A page that goes away meanwhile is asked again
    /// as the next one.
    async fn waited_for(&self, any: &[By], words: Option<&str>, gone: bool) -> Result<Option<ScriptRet>> {
        let selectors: Vec<[String; 2]> =
            any.iter().map(|by| Selector::from(by.clone())).map(|s| [s.name.to_string(), s.query.to_string()]).collect();
        let until = tokio::time::Instant::now() + PATIENCE;
        loop {
            let asked = vec![json!(selectors), json!(words), json!(gone)];
            let told = self.driver.execute_async(WAITED_FOR, asked).await;
            let over = tokio::time::Instant::now() > until;
            match told {
                Ok(found) if !found.json().is_null() => return Ok(Some(found)),
                Ok(_) if over => return Ok(None),
                Err(error) if over => return Err(error.into()),
                Ok(_) => {}
                Err(_) => tokio::time::sleep(Duration::from_millis(30)).await,
            }
        }
    }

    /// The element with this test id.
    pub async fn test_id(&self, id: &str) -> Result<WebElement> {
        self.find(By::Css(format!("[data-testid='{id}']"))).await
    }

    /// The element of this role (a tag or `role=`) with exactly this name, by label or by text.
    pub async fn named(&self, role: &str, name: &str) -> Result<WebElement> {
        self.find(By::XPath(by_name(role, name))).await
    }

    /// Presses the button or link of this name. A screen that is drawn anew meanwhile is found again.
    pub async fn press(&self, name: &str) -> Result<()> {
        let until = tokio::time::Instant::now() + PATIENCE;
        loop {
            let button = self.in_front(name).await?;
            let pressed = match button.scroll_into_view().await {
                Ok(()) => button.click().await,
                Err(error) => Err(error),
            };
            match pressed {
                Ok(()) => return Ok(()),
                Err(error) if tokio::time::Instant::now() > until => return Err(error).context(format!("cannot press {name}")),
                Err(_) => tokio::time::sleep(Duration::from_millis(30)).await,
            }
        }
    }

    /// The button or link of this name: of the dialog that lies over the page, where there is one.
    async fn in_front(&self, name: &str) -> Result<WebElement> {
        let anywhere = by_name("button", name);
        let over = format!("//*[@role='dialog']{anywhere}");
        self.find_one_of(&[By::XPath(over), By::XPath(anywhere)]).await
    }

    /// Replaces what stands in the field of this label.
    pub async fn fill(&self, label: &str, text: &str) -> Result<()> {
        let field = self.field(label).await?;
        field.send_keys(Key::Control + "a").await?;
        field.send_keys(text).await?;
        Ok(())
    }

    /// Chooses an option of the list of this label.
    pub async fn choose(&self, label: &str, option: &str) -> Result<()> {
        let q = quoted(label);
        let list = format!("//*[@role='combobox'][@aria-labelledby=//*[normalize-space(.)={q}]/@id]");
        let list = self.find(By::XPath(list)).await?;
        list.scroll_into_view().await?;
        list.click().await?;
        self.press(option).await?;
        self.wait_gone(By::Css("[role=listbox]")).await
    }

    /// The browser's language is this one from the next page on: `en-US`.
    pub async fn speaks(&self, language: &str) -> Result<()> {
        let agent = self.driver.execute("return navigator.userAgent", Vec::new()).await?.convert::<String>()?;
        let spoken = serde_json::json!({ "userAgent": agent, "acceptLanguage": language });
        self.driver.cdp().send_raw("Emulation.setUserAgentOverride", spoken).await.map(drop)?;
        Ok(())
    }

    /// The field of this label.
    pub async fn field(&self, label: &str) -> Result<WebElement> {
        let xpath = format!(
            "//*[self::input or self::textarea][@id=//label[starts-with(normalize-space(.), {0})]/@for or @aria-label={0}]",
            quoted(label)
        );
        self.find(By::XPath(xpath)).await
    }

    /// Types keys at whatever has the focus. What is drawn anew meanwhile has not got them yet.
    pub async fn keys(&self, keys: &str) -> Result<()> {
        let typed = self.driver.active_element().await?.send_keys(keys).await;
        match typed {
            Err(error) if matches!(error.as_inner(), WebDriverErrorInner::StaleElementReference(_)) => {
                Ok(self.driver.active_element().await?.send_keys(keys).await?)
            }
            typed => Ok(typed?),
        }
    }

    /// Waits until the element's text holds `words`; says what it held instead.
    pub async fn wait_text(&self, by: By, words: &str) -> Result<()> {
        if self.waited_for(std::slice::from_ref(&by), Some(words), false).await?.is_some() {
            return Ok(());
        }
        let said = match self.driver.find(by.clone()).await {
            Ok(element) => element.text().await.unwrap_or_default(),
            Err(_) => String::new(),
        };
        bail!("waited for “{words}” in {by:?}; it says “{said}”")
    }

    /// Waits until it holds; an error counts as not yet.
    pub async fn wait_until(&self, what: &str, mut holds: impl AsyncFnMut() -> Result<bool>) -> Result<()> {
        let until = tokio::time::Instant::now() + PATIENCE;
        while !holds().await.unwrap_or(false) {
            if tokio::time::Instant::now() > until {
                bail!("waited until {what}");
            }
            tokio::time::sleep(Duration::from_millis(25)).await;
        }
        Ok(())
    }

    /// Waits until nothing matches.
    pub async fn wait_gone(&self, by: By) -> Result<()> {
        match self.waited_for(std::slice::from_ref(&by), None, true).await? {
            Some(_) => Ok(()),
            None => bail!("still on the page: {by:?}"),
        }
    }

    /// How many match now.
    pub async fn count(&self, css: &str) -> Result<usize> {
        Ok(self.driver.find_all(By::Css(css)).await?.len())
    }

    /// Saves the window as PNG.
    pub async fn picture(&self, path: &Path) -> Result<()> {
        Ok(self.driver.screenshot(path).await?)
    }

    /// Runs this on every page from the next one on, before anything else.
    pub async fn on_every_page(&self, script: &str) -> Result<()> {
        let tools = self.driver.cdp();
        tools.send_raw("Page.enable", json!({})).await?;
        tools.send_raw("Page.addScriptToEvaluateOnNewDocument", json!({ "source": script })).await?;
        Ok(())
    }

    /// Cuts the window off from the network, or connects it again.
    pub async fn offline(&self, offline: bool) -> Result<()> {
        let tools = self.driver.cdp();
        tools.send_raw("Network.enable", json!({})).await?;
        let conditions = json!({ "offline": offline, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1 });
        tools.send_raw("Network.emulateNetworkConditions", conditions).await?;
        Ok(())
    }

    /// Lets the page see the system's colors as light or dark.
    pub async fn scheme(&self, scheme: &str) -> Result<()> {
        let tools = self.driver.cdp();
        let media = json!({ "features": [{ "name": "prefers-color-scheme", "value": scheme }] });
        tools.send_raw("Emulation.setEmulatedMedia", media).await?;
        Ok(())
    }

    /// Serious and critical violations that axe-core finds on the page as it stands.
    pub async fn accessibility(&self) -> Result<Vec<String>> {
        self.violations("{ resultTypes: ['violations'] }").await
    }

    /// Text that does not stand out from what is behind it, as the page stands: all that other colors can change.
    pub async fn too_faint(&self) -> Result<Vec<String>> {
        self.violations("{ resultTypes: ['violations'], runOnly: ['color-contrast'] }").await
    }

    async fn violations(&self, how: &str) -> Result<Vec<String>> {
        let axe = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/node_modules/axe-core/axe.min.js");
        let source =
            std::fs::read_to_string(&axe).with_context(|| format!("{} is missing; run npm ci in web/", axe.display()))?;
        if !self.driver.execute("return 'axe' in window", vec![]).await?.convert::<bool>()? {
            self.driver.execute(source, vec![]).await?;
        }
        let run = format!(
            "const done = arguments[0]; axe.run(document, {how}).then(r => done(r.violations), e => done([{{id: String(e), impact: 'critical', nodes: []}}]));"
        );
        let found = self.driver.execute_async(run, vec![]).await?;
        let found: Vec<Value> = found.convert()?;
        Ok(found
            .iter()
            .filter(|v| ["serious", "critical"].contains(&v["impact"].as_str().unwrap_or_default()))
            .map(|v| {
                let nodes: Vec<_> = v["nodes"]
                    .as_array()
                    .into_iter()
                    .flatten()
                    .take(3)
                    .map(|n| format!("{} {}", n["html"], n["any"][0]["message"]))
                    .collect();
                format!("{}: {}", v["id"], nodes.join(" | "))
            })
            .collect())
    }

    /// What a gloved thumb cannot hit or old eyes cannot read on the page as it stands: buttons and fields under 44 px, text under
    /// 12 px; on the plan, which is enlarged by hand, under 11 px.
    pub async fn too_small(&self) -> Result<Vec<String>> {
        Ok(self.driver.execute(TOO_SMALL, vec![]).await?.convert()?)
    }

    /// Ends the session.
    pub async fn close(self) -> Result<()> {
        Ok(self.driver.quit().await?)
    }

    /// Leaves a picture and the page's text for whoever reads a failed test.
    pub async fn leave_behind(&self, name: &str) -> Option<PathBuf> {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target/e2e-failures");
        std::fs::create_dir_all(&folder).ok()?;
        let path = folder.join(format!("{name}.png"));
        self.driver.screenshot(&path).await.ok()?;
        if let Ok(source) = self.driver.source().await {
            let _ = std::fs::write(folder.join(format!("{name}.html")), source);
        }
        Some(path)
    }
}

fn quoted(text: &str) -> String {
    if text.contains('\'') { format!("\"{text}\"") } else { format!("'{text}'") }
}

fn by_name(role: &str, name: &str) -> String {
    let q = quoted(name);
    let tags = match role {
        "button" => "self::button or self::a or self::label or @role='button' or @role='menuitem' or @role='option'",
        "heading" => "self::h1 or self::h2 or self::h3",
        _ => "true()",
    };
    format!("//*[{tags}][@aria-label={q} or (not(@aria-label) and normalize-space(.)={q})]")
}
