"""A headless Chromium of our own, for the pictures and the browser tests."""

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from selenium.webdriver import Chrome, ChromeOptions
from selenium.webdriver.chrome.service import Service

FLAGS = (
    "--headless",
    "--no-sandbox",
    "--disable-dev-shm-usage",
    "--force-device-scale-factor=1",
    "--hide-scrollbars",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-gpu",
    "--enable-unsafe-swiftshader",  # solid views without a graphics card
    "--window-size=1280,940",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
    "--proxy-server=direct://",
)


@contextmanager
def chromium(downloads: Path | None = None) -> Iterator[Chrome]:
    """A browser at 1280 x 800 with a fresh profile, which is gone afterwards."""
    with tempfile.TemporaryDirectory(
        prefix="loquet-chromium-", ignore_cleanup_errors=True
    ) as profile:
        options = ChromeOptions()
        options.binary_location = "/usr/bin/chromium"
        for flag in (*FLAGS, f"--user-data-dir={profile}"):
            options.add_argument(flag)
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        if downloads:
            options.add_experimental_option(
                "prefs",
                {
                    "download.default_directory": str(downloads),
                    "download.prompt_for_download": False,
                },
            )
        driver = Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        try:
            driver.execute_cdp_cmd(
                "Emulation.setDeviceMetricsOverride",
                {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False},
            )
            yield driver
        finally:
            driver.quit()
