package lychnos.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.PlaywrightException;
import com.microsoft.playwright.TimeoutError;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ColorScheme;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A browser window with a person before it. */
final class Screen implements AutoCloseable {

    /** More than this nobody presses to come to a control. */
    private static final int MOST_TABS = 150;

    private static final Path AXE = Path.of("../web/node_modules/axe-core/axe.min.js");

    /** How long a journey waits for what a person would see: machines that run the tests may be slow. */
    private static final double PATIENCE_MILLIS = 30_000;

    /** What the screen that was closed last had shown, for the report of a failure; one test runs at a time. */
    private static volatile String lastSeen = "";

    private final Playwright playwright;
    private final Browser browser;
    private final List<String> complaints = new ArrayList<>();
    final Page page;

    Screen() {
        this(1280, 800, ColorScheme.LIGHT);
    }

    Screen(int width, int height, ColorScheme scheme) {
        this(width, height, scheme, "");
    }

    /** @param script what each page loads first, which may ask what the pages themselves may not; empty for nothing */
    Screen(int width, int height, ColorScheme scheme, String script) {
        System.setProperty("playwright.cli.dir", System.getenv("PLAYWRIGHT_CLI_DIR"));
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--disable-quic",
                                "--no-first-run",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync")));
        BrowserContext context = browser.newContext(new Browser.NewContextOptions()
                .setViewportSize(width, height)
                .setColorScheme(scheme)
                .setBypassCSP(!script.isEmpty()));
        if (!script.isEmpty()) {
            context.addInitScript(script);
        }
        context.setDefaultTimeout(PATIENCE_MILLIS);
        PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE_MILLIS);
        page = context.newPage();
        page.onPageError(error -> complaints.add(error));
        page.onConsoleMessage(message -> {
            // Chromium notes every answer that is a refusal: 401 without a session, 400 to what the journey typed wrong
            // on
            // purpose
            if (message.type().equals("error") && !message.text().matches(".*status of 40[01] .*")) {
                complaints.add(message.text() + " at " + message.location());
            }
        });
    }

    void signIn(String url) {
        signIn(url, "rack-one", "engineer-at-rack-one");
    }

    void signIn(String url, String login, String password) {
        page.navigate(url);
        page.getByLabel("Login").fill(login);
        page.getByLabel("Password").fill(password);
        button("Sign in").click();
        page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Bring-ups"))
                .waitFor();
    }

    /** The same by keyboard alone. */
    void signInByKeyboard(String url, String login, String password) {
        page.navigate(url);
        type(page.getByLabel("Login"), login);
        type(page.getByLabel("Password"), password);
        page.keyboard().press("Enter");
        page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Bring-ups"))
                .waitFor();
    }

    Locator button(String name, boolean exact) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(exact));
    }

    Locator button(String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name));
    }

    /** The field of exactly this label. */
    Locator field(String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    Locator text(String text) {
        return page.getByText(text);
    }

    void stage(String name) {
        page.getByRole(AriaRole.NAVIGATION).getByText(name).click();
    }

    /** Goes to a control by Tab alone, as people without a mouse do, and sees there where they are. */
    void reach(Locator control) {
        control.waitFor();
        int tabs = 0;
        while (!(Boolean) control.evaluate("control => control === document.activeElement")) {
            if (++tabs > MOST_TABS) {
                throw new AssertionError(control + " is not reached by Tab; the last was "
                        + page.evaluate("document.activeElement.outerHTML.slice(0, 120)"));
            }
            page.keyboard().press("Tab");
        }
        boolean seen = (Boolean) control.evaluate(
                "control => { const look = getComputedStyle(control); return look.outlineStyle !== 'none' || "
                        + "look.boxShadow !== 'none'; }");
        if (tabs > 0 && !seen) {
            complaints.add("nobody sees that the focus is at "
                    + control.evaluate("control => control.outerHTML.slice(0, 120)"));
        }
    }

    /** Presses a button or a link by keyboard alone. */
    void press(Locator control) {
        reach(control);
        page.keyboard().press("Enter");
    }

    /** The same for a control that may go away at any moment. */
    void pressIfThere(Locator control) {
        if (control.and(page.locator(":enabled")).isVisible()) {
            try {
                control.press("Enter", new Locator.PressOptions().setTimeout(1000));
            } catch (TimeoutError e) {
                // it has gone: what it stood for is done
            }
        }
    }

    /** Types into a field by keyboard alone, over its content. */
    void type(Locator field, String text) {
        reach(field);
        page.keyboard().press("Control+a");
        page.keyboard().insertText(text);
    }

    /** What axe finds against WCAG 2.2 AA on the page as it is. */
    List<String> axe() throws IOException {
        page.evaluate(Files.readString(AXE));
        Object found = page.evaluate(
                """
                async () => {
                  const result = await axe.run(document, {
                    runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
                  });
                  return result.violations.map(
                    (v) => v.id + ': ' + v.nodes.map(
                      (n) => n.target.join(' ') + ' ' + (n.any[0]?.message ?? ''))
                      .slice(0, 3).join(' | '));
                }""");
        List<String> rules = new ArrayList<>();
        ((List<?>) found).forEach(rule -> rules.add(String.valueOf(rule)));
        return rules;
    }

    /** What the browser complained of: errors, refused requests, breaches of the content policy. */
    List<String> complaints() {
        return List.copyOf(complaints);
    }

    static void forgetLastSeen() {
        lastSeen = "";
    }

    /** What the screen that was closed last had shown, empty where none was closed: its address and its text. */
    static String lastSeen() {
        return lastSeen;
    }

    @Override
    public void close() {
        try {
            lastSeen = page.url() + "\n" + page.evaluate("document.body.innerText") + "\n" + complaints;
        } catch (PlaywrightException e) {
            lastSeen = "The page no longer answers: " + e.getMessage();
        }
        browser.close();
        playwright.close();
    }
}
