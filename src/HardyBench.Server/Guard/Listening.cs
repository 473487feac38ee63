using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using HardyBench.Workbench;
using HardyBench.Workbench.Data;

namespace HardyBench.Server.Guard;

/// <summary>Where a server listens, and what guards it there.</summary>
/// <param name="Url">Address and port, with the scheme.</param>
/// <param name="Hosts">Names by which it may be opened, besides addresses written as numbers.</param>
/// <param name="Token">Null where only this machine can reach it.</param>
/// <param name="Certificate">Null where only this machine can reach it.</param>
public sealed record Listening(string Url, IReadOnlyList<string> Hosts, AccessToken? Token = null, X509Certificate2? Certificate = null)
{
    private const string TokenFile = "access-token", CertificateFile = "certificate.pfx";

    /// <summary>Only this machine can reach it.</summary>
    public static Listening Here(string url) => new(url, ["localhost"]);

    /// <summary>The file that keeps the checksum of the access token.</summary>
    public static string TokenFileIn(DataFolder folder) => Path.Combine(folder.Path, TokenFile);

    /// <summary>On an address: on this machine's own as it is; on any other only with a token and encrypted, by a certificate that is given
    /// or made here.</summary>
    /// <param name="hosts">More names by which it may be opened.</param>
    /// <param name="certificate">A PEM file with certificate and key; null to make one, kept in the data folder.</param>
    /// <exception cref="DataFolderException">There is no token yet, or the certificate cannot be read; nothing was started.</exception>
    public static Listening On(string address, int port, IReadOnlyList<string> hosts, string? certificate, DataFolder folder)
    {
        var shown =
            IPAddress.TryParse(address, out var ip) && ip.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6
                ? $"[{address}]"
                : address;
        if (address == "localhost" || (ip is not null && IPAddress.IsLoopback(ip)))
        {
            return new Listening($"http://{shown}:{port}", ["localhost", .. hosts]);
        }

        var token = AccessToken.Find(TokenFileIn(folder)) ?? throw new DataFolderException(
            $"Others could reach {address}, so a token is needed first: make one with 'hardybench token --data {folder.Path}', then "
                + "start again. Nothing was started."
        );
        return new Listening(
            $"https://{shown}:{port}", ["localhost", Environment.MachineName, address, .. hosts], token,
            certificate is null ? Made(folder, [address, Environment.MachineName, .. hosts]) : Given(certificate));
    }

    private static X509Certificate2 Given(string file)
    {
        try
        {
            return X509CertificateLoader.LoadPkcs12(X509Certificate2.CreateFromPemFile(file).Export(X509ContentType.Pkcs12), null);
        }
        catch (Exception wrong) when (wrong is CryptographicException or IOException or UnauthorizedAccessException)
        {
            throw new DataFolderException(
                $"The certificate {file} cannot be used: {wrong.Message} It must be a PEM file with the certificate and its key. "
                    + "Nothing was started.",
                wrong
            );
        }
    }

    /// <summary>A certificate of our own for ten years; whoever opens the page compares its fingerprint once.</summary>
    private static X509Certificate2 Made(DataFolder folder, IEnumerable<string> names)
    {
        var file = Path.Combine(folder.Path, CertificateFile);
        if (!File.Exists(file))
        {
            using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
            var request = new CertificateRequest("CN=Hardy Bench", key, HashAlgorithmName.SHA256);
            var alternatives = new SubjectAlternativeNameBuilder();
            foreach (var name in names.Distinct().Where(name => name.Length > 0))
            {
                if (IPAddress.TryParse(name, out var ip))
                {
                    alternatives.AddIpAddress(ip);
                }
                else
                {
                    alternatives.AddDnsName(name);
                }
            }

            request.CertificateExtensions.Add(alternatives.Build());
            request.CertificateExtensions.Add(new X509BasicConstraintsExtension(certificateAuthority: false, false, 0, critical: true));
            using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddYears(10));
            SecretFile.Write(file, made.Export(X509ContentType.Pkcs12));
        }

        return X509CertificateLoader.LoadPkcs12FromFile(file, null);
    }
}
