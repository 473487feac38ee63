using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using HardyBench.Server.Guard;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;

namespace HardyBench.Server.Tests;

/// <summary>Whose requests are answered.</summary>
public sealed class GuardTests : ServerTest
{
    [Theory]
    [InlineData("rebound.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("localhost.rebound.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("127.0.0.1.rebound.example", HttpStatusCode.MisdirectedRequest)]
    [InlineData("localhost", HttpStatusCode.OK)]
    [InlineData("127.0.0.1", HttpStatusCode.OK)]
    public async Task A_foreign_host_name_that_leads_here_gets_no_answer(string host, HttpStatusCode status)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/machines")
        {
            Headers = { Host = $"{host}:{Http.BaseAddress!.Port}" },
        };

        Assert.Equal(status, (await Http.SendAsync(request)).StatusCode);
    }

    [Theory]
    [InlineData("Origin", "http://other.example")]
    [InlineData("Origin", "null")]
    [InlineData("Origin", "http://127.0.0.1:1")]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    public async Task A_foreign_page_changes_nothing_and_hears_nothing(string header, string value)
    {
        foreach (var (method, path) in new[]
        {
            (HttpMethod.Post, "/api/timelines"),
            (HttpMethod.Put, "/api/timelines/touring-night"),
            (HttpMethod.Delete, "/api/timelines/touring-night"),
            (HttpMethod.Post, "/api/uploads"),
            (HttpMethod.Delete, "/api/play"),
            (HttpMethod.Post, "/live/negotiate?negotiateVersion=1"),
            (HttpMethod.Get, "/live"),
        })
        {
            using var request = new HttpRequestMessage(method, path) { Headers = { { header, value } } };
            if (method != HttpMethod.Get && method != HttpMethod.Delete)
            {
                request.Content = JsonContent.Create(new { title = "Planted" });
            }

            Assert.Equal(HttpStatusCode.Forbidden, (await Http.SendAsync(request)).StatusCode);
        }

        Assert.Equal(
            ["touring-night", "closing-gala"],
            (await GetAsync("/api/timelines")).AsArray().Select(timeline => (string)timeline!["id"]!)
        );
    }

    [Theory]
    [InlineData("text/plain", HttpStatusCode.UnsupportedMediaType)]
    [InlineData("application/x-www-form-urlencoded", HttpStatusCode.UnsupportedMediaType)]
    [InlineData("multipart/form-data; boundary=x", HttpStatusCode.UnsupportedMediaType)]
    [InlineData(null, HttpStatusCode.UnsupportedMediaType)]
    [InlineData("application/octet-stream", HttpStatusCode.UnsupportedMediaType)]
    [InlineData("application/json; charset=utf-8", HttpStatusCode.OK)]
    public async Task A_body_is_taken_only_under_its_exact_type(string? type, HttpStatusCode status)
    {
        using var content = new ByteArrayContent("""{"title":"Late"}"""u8.ToArray());
        content.Headers.ContentType = type is null ? null : MediaTypeHeaderValue.Parse(type);

        Assert.Equal(status, (await Http.PostAsync("/api/timelines", content)).StatusCode);
    }

    [Theory]
    [InlineData("/api/timelines/import?name=a.edl")]
    [InlineData("/api/looks?name=a.cube")]
    [InlineData("/api/packs")]
    public async Task A_raw_body_is_taken_as_bytes_only(string path)
    {
        using var text = new StringContent("TITLE: X", Encoding.UTF8, "text/plain");
        using var json = new StringContent("{}", Encoding.UTF8, "application/json");

        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await Http.PostAsync(path, text)).StatusCode);
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await Http.PostAsync(path, json)).StatusCode);
    }

    /// <summary>Every address that is only read, asked for once: nothing may have been kept or begun by it.</summary>
    [Fact]
    public async Task Reading_has_no_effects()
    {
        var document = await GetAsync("/openapi/v1.json");
        var paths = document["paths"]!
            .AsObject()
            .Where(path => path.Value!["get"] is not null)
            .Select(path =>
                path.Key.Replace("{timelineId}", "touring-night", StringComparison.Ordinal)
                    .Replace("{what}", "frames", StringComparison.Ordinal)
                    .Replace("{number}", "1", StringComparison.Ordinal)
            );
        foreach (var path in paths)
        {
            var known = path.Replace(
                "{id}",
                path.Contains("timelines", StringComparison.Ordinal) ? "touring-night"
                    : path.Contains("clips", StringComparison.Ordinal) ? "hd-avc-25"
                    : "1",
                StringComparison.Ordinal
            );
            Assert.True((int)(await Http.GetAsync(known)).StatusCode < 500, known);
        }

        Assert.Empty((await GetAsync("/api/runs")).AsArray());
        Assert.Empty((await GetAsync("/api/trials")).AsArray());
        Assert.Equal(HttpStatusCode.NoContent, (await Http.GetAsync("/api/play")).StatusCode);
        Assert.Empty(Directory.EnumerateFileSystemEntries(Bench.Folder.Incoming));
    }

    [Fact]
    public async Task Every_answer_says_how_a_browser_may_use_it()
    {
        foreach (
            var path in new[] { "/api/machines", "/nothing/here", "/", "/api/runs/999", "/api/timelines/touring-night/sheet?scale=tiny" }
        )
        {
            var headers = (await Http.GetAsync(path)).Headers;
            var policy = headers.GetValues("Content-Security-Policy").Single();

            Assert.StartsWith("default-src 'none'; script-src 'self'", policy, StringComparison.Ordinal);
            Assert.DoesNotContain("script-src 'self' 'unsafe", policy, StringComparison.Ordinal);
            Assert.Contains("frame-ancestors 'none'", policy, StringComparison.Ordinal);
            Assert.Equal("nosniff", headers.GetValues("X-Content-Type-Options").Single());
            Assert.Equal("no-referrer", headers.GetValues("Referrer-Policy").Single());
            Assert.False(headers.Contains("Server"));
        }
    }

    [Fact]
    public void Beyond_this_machine_nothing_listens_without_a_token()
    {
        var refused = Assert.Throws<DataFolderException>(() => Listening.On("0.0.0.0", 0, [], null, Bench.Folder));

        Assert.Contains("hardybench token", refused.Message, StringComparison.Ordinal);
        Assert.Null(Listening.On("127.0.0.1", 0, [], null, Bench.Folder).Token);
        Assert.StartsWith("http://[::1]", Listening.On("::1", 0, [], null, Bench.Folder).Url, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Beyond_this_machine_it_is_encrypted_and_asks_for_the_token()
    {
        var token = AccessToken.Make(Listening.TokenFileIn(Bench.Folder));
        Assert.DoesNotContain(token, await File.ReadAllTextAsync(Listening.TokenFileIn(Bench.Folder)), StringComparison.Ordinal);
        Assert.Equal(
            UnixFileMode.UserRead | UnixFileMode.UserWrite,
            OperatingSystem.IsWindows() ? default : File.GetUnixFileMode(Listening.TokenFileIn(Bench.Folder))
        );
        var listening = Listening.On("0.0.0.0", 0, ["bench.example"], null, Bench.Folder);
        Assert.StartsWith("https://", listening.Url, StringComparison.Ordinal);
        // In a test it is reached on this machine alone.
        await using var guarded = BenchServer.Create(Bench, listening with { Url = "https://127.0.0.1:0" });
        await guarded.StartAsync();
        using var handler = new HttpClientHandler
        {
            AllowAutoRedirect = false, UseCookies = true,
            ServerCertificateCustomValidationCallback = (_, certificate, _, _) =>
                certificate!.Thumbprint == listening.Certificate!.Thumbprint,
        };
        using var client = new HttpClient(handler) { BaseAddress = new Uri(guarded.Urls.First()) };

        Assert.Equal(HttpStatusCode.Unauthorized, (await client.GetAsync("/api/machines")).StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.PostAsync("/live/negotiate", null)).StatusCode);
        Assert.Equal("/sign-in", (await client.GetAsync("/")).Headers.Location!.ToString());
        using var program = new HttpRequestMessage(HttpMethod.Get, "/api/machines") { Headers = { Authorization = new("Bearer", token) } };
        Assert.Equal(HttpStatusCode.OK, (await client.SendAsync(program)).StatusCode);
        using var near = new HttpRequestMessage(HttpMethod.Get, "/api/machines")
        {
            Headers = { Authorization = new("Bearer", token[..^1] + "x") },
        };
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.SendAsync(near)).StatusCode);

        using var lowerCase = new HttpRequestMessage(HttpMethod.Get, "/api/machines") { Headers = { Authorization = new("bearer", token) } };
        Assert.Equal(HttpStatusCode.OK, (await client.SendAsync(lowerCase)).StatusCode);

        using var huge = new FormUrlEncodedContent([new("token", new string('x', 6 << 20))]);
        Assert.Equal(HttpStatusCode.BadRequest, (await client.PostAsync("/sign-in", huge)).StatusCode);
        using var many = new FormUrlEncodedContent(Enumerable.Range(0, 5000).Select(n => KeyValuePair.Create($"{n}", "x")));
        Assert.Equal(HttpStatusCode.BadRequest, (await client.PostAsync("/sign-in", many)).StatusCode);
        using var wrong = new FormUrlEncodedContent([new("token", "guess")]);
        Assert.Equal(HttpStatusCode.Unauthorized, (await client.PostAsync("/sign-in", wrong)).StatusCode);
        using var right = new FormUrlEncodedContent([new("token", token)]);
        var signedIn = await client.PostAsync("/sign-in", right);
        var cookie = signedIn.Headers.GetValues("Set-Cookie").Single();
        Assert.Contains("httponly", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase);
        Assert.Equal(HttpStatusCode.OK, (await client.GetAsync("/api/machines")).StatusCode);

        // Whoever guesses has to wait; who is signed in does not.
        HttpResponseMessage guessed;
        var guesses = 0;
        do
        {
            using var guess = new FormUrlEncodedContent([new("token", $"guess {guesses++}")]);
            guessed = await client.PostAsync("/sign-in", guess);
        }
        while (guessed.StatusCode == HttpStatusCode.Unauthorized && guesses < 100);

        Assert.Equal(HttpStatusCode.TooManyRequests, guessed.StatusCode);
        Assert.NotNull(guessed.Headers.RetryAfter);
        Assert.Equal(HttpStatusCode.OK, (await client.GetAsync("/api/machines")).StatusCode);
    }

    [Fact]
    public async Task A_health_address_tells_whether_the_queue_lives()
    {
        var health = await GetAsync("/api/health");

        Assert.True((bool)health["queueLives"]!);
        Assert.Equal(0, (int)health["waiting"]!);
        Assert.Empty((JsonArray)health["unreadable"]!);
    }
}
