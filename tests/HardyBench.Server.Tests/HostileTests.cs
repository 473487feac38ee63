using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace HardyBench.Server.Tests;

/// <summary>The hostile collection in tests/hostile, sent to a running server. Each of it is refused in words or taken with what is wrong
/// left out; the server never fails by itself, nothing is planted, and everything works afterwards.</summary>
public sealed partial class HostileTests : ServerTest
{
    private static readonly string Collection = Repository.PathOf("tests", "hostile");

    [Fact]
    public async Task Requests()
    {
        foreach (var one in Read("requests.json"))
        {
            using var request = new HttpRequestMessage(new HttpMethod((string)one["method"]!), ((string)one["path"]!).Replace("HERE", HereId, StringComparison.Ordinal));
            if (one["body"] is not null || one["text"] is not null || one["hex"] is not null)
            {
                request.Content = new ByteArrayContent(
                    one["body"] is { } body ? Encoding.UTF8.GetBytes(body.ToJsonString()) : BytesOf(one)
                );
                request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse((string?)one["type"] ?? "application/json");
            }

            foreach (var (name, value) in one["headers"]?.AsObject() ?? [])
            {
                request.Headers.TryAddWithoutValidation(name, (string)value!);
            }

            for (var n = 0; n < ((int?)one["manyHeaders"] ?? 0); n++)
            {
                request.Headers.TryAddWithoutValidation($"X-More-{n}", "x");
            }

            await AnsweredAsync(
                (string)one["name"]!,
                await Http.SendAsync(request),
                [.. one["status"]!.AsArray().Select(status => (int)status!)],
                (string?)one["words"]
            );
        }

        await AllWorksAsync();
    }

    [Fact]
    public async Task Names()
    {
        foreach (var name in HostileNames())
        {
            var begun = await BeginAsync(5, name);
            await AnsweredAsync($"upload '{name}'", begun, [201, 422]);
            if (begun.StatusCode == HttpStatusCode.Created)
            {
                await AnsweredAsync($"upload '{name}'", await SendAsync(begun.Headers.Location!.ToString(), 0, "clip!"u8.ToArray()), [422]);
            }

            var asked = Uri.EscapeDataString(name);
            await AnsweredAsync(
                $"look '{name}'",
                await PostBytesAsync($"/api/looks?name={asked}", "LUT_3D_SIZE 2\n0 0\n"u8.ToArray()),
                [400, 422]
            );
            await AnsweredAsync(
                $"import '{name}'",
                await PostBytesAsync($"/api/timelines/import?name={asked}", "nothing"u8.ToArray()),
                [400, 422]
            );
            var titled = await Http.PostAsync("/api/timelines", Json(new JsonObject { ["title"] = name }));
            await AnsweredAsync($"title '{name}'", titled, [200, 400, 422]);
            if (titled.IsSuccessStatusCode)
            {
                var id = (string)JsonNode.Parse(await titled.Content.ReadAsStringAsync())!["timeline"]!["id"]!;
                Assert.Matches("^[a-z0-9-]+$", id);
                foreach (var format in new[] { "otio", "json", "edl" })
                {
                    await AnsweredAsync($"export '{name}'", await Http.GetAsync($"/api/timelines/{id}/export?format={format}"), [200, 422]);
                }

                await Http.DeleteAsync($"/api/timelines/{id}");
            }
        }

        await AllWorksAsync();
    }

    /// <summary>A good file under a bad name plays under its own checksum, and its name is nothing but words.</summary>
    [Fact]
    public async Task Good_clips_under_bad_names()
    {
        var clips = await TestData.ClipsAsync();
        var good = await File.ReadAllBytesAsync(clips.PathOf(clips.Clips["hd-avc-50"]));
        foreach (var (index, name) in HostileNames().Where(name => Encoding.UTF8.GetByteCount(name) <= 255).Index())
        {
            // Each is another file: what follows the last box of a film is not read.
            byte[] bytes = [.. good, .. Encoding.ASCII.GetBytes($"\0\0\0\u000cfree{index:0000}")];
            var place = await BeginUploadAsync(bytes.Length, name);
            await AnsweredAsync($"'{name}'", await SendAsync(place, 0, bytes), [204, 422]);
        }

        Assert.All(
            Directory.EnumerateFiles(Bench.Folder.Own),
            file => Assert.Matches("^[0-9a-f]{64}(\\.[a-z0-9]{2,5})(\\.clip\\.json)?$", Path.GetFileName(file))
        );
        await AllWorksAsync();
    }

    [Fact]
    public async Task Files()
    {
        foreach (var one in Read("files.json"))
        {
            var (name, bytes) = ((string)one["name"]!, BytesOf(one));
            if (bytes.Length > 0)
            {
                await AnsweredAsync(
                    $"{name} as a clip",
                    await SendAsync(await BeginUploadAsync(bytes.Length, "clip.mp4"), 0, bytes),
                    [422]
                );
            }

            await AnsweredAsync($"{name} as a look", await PostBytesAsync("/api/looks?name=l.cube", bytes), [400, 422]);
            await AnsweredAsync($"{name} as a timeline", await PostBytesAsync("/api/timelines/import?name=a.otio", bytes), [400, 422]);
            await AnsweredAsync($"{name} as a list", await PostBytesAsync("/api/timelines/import?name=a.edl", bytes), [400, 422]);
            await AnsweredAsync($"{name} as a pack", await PostBytesAsync("/api/packs", bytes), [400, 422]);
        }

        await AllWorksAsync();
    }

    [Fact]
    public async Task Packs()
    {
        foreach (var one in Read("packs.json"))
        {
            using var file = new MemoryStream();
            using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            {
                foreach (var entry in one["entries"]?.AsArray() ?? [])
                {
                    await using var into = zip.CreateEntry((string)entry!["path"]!).Open();
                    await into.WriteAsync(entry["zeros"] is { } zeros ? new byte[(int)zeros] : BytesOf(entry));
                }

                if (one.AsObject().ContainsKey("manifest"))
                {
                    await using var into = zip.CreateEntry("manifest.json").Open();
                    await into.WriteAsync(Encoding.UTF8.GetBytes(one["manifest"]?.ToJsonString() ?? "null"));
                }
            }

            await AnsweredAsync((string)one["name"]!, await PostBytesAsync("/api/packs", file.ToArray()), [422], "Nothing was");
            Assert.Empty(Directory.EnumerateFileSystemEntries(Bench.Folder.Incoming));
        }

        await AllWorksAsync();
    }

    [Fact]
    public async Task Timelines()
    {
        foreach (var file in Directory.EnumerateFiles(Path.Combine(Collection, "timelines")).Order())
        {
            var name = Path.GetFileName(file);
            var answer = await PostBytesAsync($"/api/timelines/import?name={name}", Encoding.UTF8.GetBytes(Expanded(file)));
            await AnsweredAsync(name, answer, [200, 422]);
            if (answer.IsSuccessStatusCode)
            {
                await Http.DeleteAsync(
                    $"/api/timelines/{JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["stored"]!["timeline"]!["id"]}"
                );
            }
        }

        await AllWorksAsync();
    }

    private static async Task AnsweredAsync(string what, HttpResponseMessage answer, int[] right, string? words = null)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(right.Contains((int)answer.StatusCode), $"{what}: {(int)answer.StatusCode} {text[..Math.Min(400, text.Length)]}");
        if ((int)answer.StatusCode is >= 400 and not 404 and not 405)
        {
            var detail = (string?)JsonNode.Parse(text)?["detail"];
            Assert.True(detail is { Length: > 10 }, $"{what} was refused without a word: {text}");
            Assert.Contains(words ?? string.Empty, detail, StringComparison.OrdinalIgnoreCase);
        }
    }

    /// <summary>The demo's timeline is there as it was and alone, the queue lives, and nothing lies where nothing was asked to.</summary>
    private async Task AllWorksAsync()
    {
        Assert.Equal(
            ["touring-night", "closing-gala"],
            (await GetAsync("/api/timelines")).AsArray().Select(timeline => (string)timeline!["id"]!)
        );
        Assert.Equal(8, (await GetAsync("/api/timelines/touring-night"))["timeline"]!["passages"]!.AsArray().Count);
        Assert.True((bool)(await GetAsync("/api/health"))["queueLives"]!);
        Assert.Empty((await GetAsync("/api/health"))["unreadable"]!.AsArray());
        Assert.Empty((await GetAsync("/api/runs")).AsArray());
        Assert.Empty(Directory.EnumerateFiles(Bench.Folder.Incoming));
        Assert.Empty(
            Directory
                .EnumerateFiles(AppContext.BaseDirectory, "planted*")
                .Concat(Directory.EnumerateFiles(Directory.GetCurrentDirectory(), "planted*"))
        );
        Assert.Equal(
            ["aids", "bench.db", "clips", "incoming", "looks", "own", "player"],
            Directory
                .EnumerateFileSystemEntries(Bench.Folder.Path)
                .Select(Path.GetFileName)
                // Besides these there are only locks, and what the database keeps beside itself.
                .Where(name => !name!.StartsWith("bench.db-", StringComparison.Ordinal) && Path.GetExtension(name) is not (".lock" or ".migrating"))
                .Order()
        );
    }

    private static JsonNode[] Read(string file) =>
        [.. JsonNode.Parse(Expanded(Path.Combine(Collection, file)))!.AsArray().Select(one => one!)];

    private static string[] HostileNames() => [.. Read("names.json").Select(name => (string)name!)];

    /// <summary>A file's text, with what stands between "{{N times}}" and "{{end}}" written out.</summary>
    private static string Expanded(string file) => Repeated().Replace(
        File.ReadAllText(file),
        part =>
            string.Concat(
                Enumerable.Repeat(
                    part.Groups[2].Value,
                    int.Parse(part.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture)
                )
            )
    );

    [GeneratedRegex(@"\{\{(\d+) times\}\}(.*?)\{\{end\}\}", RegexOptions.Singleline)]
    private static partial Regex Repeated();

    private static byte[] BytesOf(JsonNode one)
    {
        byte[] once = one["hex"] is { } hex
            ? Convert.FromHexString((string)hex!)
            : Encoding.UTF8.GetBytes(
                ((string)one["text"]!).Replace("%s", new string('x', (int?)one["fill"] ?? 0), StringComparison.Ordinal)
            );
        return [.. Enumerable.Repeat(once, (int?)one["times"] ?? 1).SelectMany(bytes => bytes)];
    }

    private static ByteArrayContent Json(JsonObject body) =>
        new(Encoding.UTF8.GetBytes(body.ToJsonString())) { Headers = { ContentType = new("application/json") } };

    private Task<HttpResponseMessage> PostBytesAsync(string path, byte[] bytes) =>
        Http.PostAsync(path, new ByteArrayContent(bytes) { Headers = { ContentType = new("application/octet-stream") } });
}
