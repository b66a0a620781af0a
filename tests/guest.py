"""A browser's part without a browser: a cookie, a token, and changes that are sent again."""

import http.cookiejar
import json
import re
import secrets
import time
import urllib.error
import urllib.request

BACK = 120  # seconds, on a slow machine; the promise is 15 on an ordinary one


class Guest:
    """A browser's part: a cookie, a token, and changes that are sent again until they are taken."""

    def __init__(self, port):
        self.base = f"http://127.0.0.1:{port}"
        jar = urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())
        self.open = urllib.request.build_opener(jar).open
        self.token = ""

    def get(self, path):
        try:
            with self.open(self.base + path, timeout=30) as answer:
                return answer.status, answer.read().decode(), answer.headers
        except urllib.error.HTTPError as error:
            return error.code, error.read().decode(), error.headers
        except OSError:
            return 0, "", {}

    def post(self, path, body, raw=False):
        self.token = self.token or re.search(r'csrf-token" content="([^"]+)', self.get("/")[1])[1]
        head = {"Content-Type": "application/json", "X-CSRFToken": self.token}
        asked = urllib.request.Request(self.base + "/api" + path, json.dumps(body).encode(), head)
        try:
            with self.open(asked, timeout=120) as answer:
                data = answer.read()
                return answer.status, data if raw else json.loads(data), answer.headers
        except urllib.error.HTTPError as error:
            return error.code, json.loads(error.read() or b"{}"), error.headers
        except OSError:
            return 0, {}, {}

    def until(self, wanted, work):
        """Do it until the status is as wanted; gives the answer."""
        end = time.monotonic() + BACK
        while (found := work())[0] != wanted:
            if time.monotonic() > end:
                raise AssertionError(f"still {found[0]}: {str(found[1])[:300]}")
            time.sleep(0.2)
        return found

    def change(self, found, text, wanted=200):
        edits = [{"do": "add lane", "text": text}]
        body = {"base": found["head"], "edits": edits, "change": secrets.token_hex(16)}
        return self.until(wanted, lambda: self.post(f"/sheets/{found['id']}/edits", body))
